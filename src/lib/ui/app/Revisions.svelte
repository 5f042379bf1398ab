<!-- Every save of a chart, to go back to. Going back is an edit like any other and can be undone. -->
<script lang="ts">
  import { Dialog } from 'bits-ui';
  import { toast } from 'svelte-sonner';
  import type { RevisionSummary, StoredChart } from '$lib/api/songbook';
  import type { Workspace } from '$lib/state/workspace.svelte';

  let { open = $bindable(), workspace }: { open: boolean; workspace: Workspace } = $props();
  let revisions: readonly RevisionSummary[] | null = $state.raw(null);

  $effect(() => {
    if (!open) return;
    revisions = null;
    void fetch(`/api/v1/songbook/${workspace.id}/revisions`)
      .then((response) => response.json() as Promise<{ revisions: RevisionSummary[] }>)
      .then((body) => (revisions = body.revisions))
      .catch(() => toast.error('The earlier versions cannot be read just now.'));
  });

  async function goBackTo(version: number) {
    const response = await fetch(`/api/v1/songbook/${workspace.id}/revisions/${version}`);
    if (!response.ok) return void toast.error('This version cannot be read just now.');
    const earlier = (await response.json()) as StoredChart;
    workspace.adopt({ source: earlier.source, plan: earlier.plan });
    open = false;
    toast.success(`Back at version ${version}`, {
      action: { label: 'Undo', onClick: () => workspace.undo() }
    });
  }

  const time = (at: number) => new Date(at).toLocaleString();
</script>

<Dialog.Root bind:open>
  <Dialog.Portal>
    <Dialog.Overlay class="fixed inset-0 z-40 bg-black/50" />
    <Dialog.Content class="fixed top-[10vh] left-1/2 z-50 w-[min(480px,94vw)] -translate-x-1/2 card p-5">
      <Dialog.Title class="font-display text-2xl">Earlier versions</Dialog.Title>
      <ul class="mt-3 max-h-[56vh] overflow-y-auto">
        {#each revisions ?? [] as revision (revision.version)}
          <li class="flex items-center justify-between gap-3 border-b border-line py-1.5">
            <span
              ><b>{revision.version}</b> · {time(revision.savedAt)}<br /><span class="text-[13px] text-soft"
                >{revision.title}</span
              ></span
            >
            <button class="btn" onclick={() => goBackTo(revision.version)}>Go back to it</button>
          </li>
        {:else}
          <li class="text-soft">{revisions ? 'No earlier version yet.' : 'Reading …'}</li>
        {/each}
      </ul>
      <div class="mt-4 flex justify-end"><Dialog.Close class="btn btn-strong">Close</Dialog.Close></div>
    </Dialog.Content>
  </Dialog.Portal>
</Dialog.Root>
