<!-- Every save of a chart, to go back to. Going back is an edit like any other and can be undone. -->
<script lang="ts">
  import { toast } from 'svelte-sonner';
  import type { RevisionSummary, StoredChart } from '$lib/api/songbook';
  import type { ChartDocument } from '$lib/state/chart/document.svelte';
  import Button from '../kit/Button.svelte';
  import Dialog from '../kit/Dialog.svelte';

  let { open = $bindable(), document: chart }: { open: boolean; document: ChartDocument } = $props();
  let revisions: readonly RevisionSummary[] | null = $state.raw(null);

  $effect(() => {
    if (!open) return;
    revisions = null;
    void fetch(`/api/v1/songbook/${chart.id}/revisions`)
      .then((response) => response.json() as Promise<{ revisions: RevisionSummary[] }>)
      .then((body) => (revisions = body.revisions))
      .catch(() => toast.error('The earlier versions cannot be read just now.'));
  });

  async function goBackTo(version: number) {
    const response = await fetch(`/api/v1/songbook/${chart.id}/revisions/${version}`).catch(() => null);
    if (!response?.ok) return void toast.error('This version cannot be read just now.');
    chart.adopt((await response.json()) as StoredChart);
    open = false;
    toast.success(`Restored version ${version}`, {
      action: { label: 'Undo', onClick: () => chart.undo() }
    });
  }

  const time = (at: number) => new Date(at).toLocaleString();
</script>

<Dialog bind:open title="Earlier versions" size="narrow">
  <ul>
    {#each revisions ?? [] as revision (revision.version)}
      <li class="flex items-center justify-between gap-3 border-b border-line py-1.5">
        <span
          ><b>{revision.version}</b> · {time(revision.savedAt)}<br /><span class="text-sm text-soft"
            >{revision.title}</span
          ></span
        >
        <Button onclick={() => goBackTo(revision.version)}>Restore this version</Button>
      </li>
    {:else}
      <li class="text-soft">{revisions ? 'No earlier version yet.' : 'Reading …'}</li>
    {/each}
  </ul>
</Dialog>
