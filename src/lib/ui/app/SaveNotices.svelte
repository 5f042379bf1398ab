<!-- What the player has to know or decide about saving. -->
<script lang="ts">
  import { toast } from 'svelte-sonner';
  import { goto } from '$app/navigation';
  import type { ChartDocument } from '$lib/state/chart/document.svelte';
  import Button from '../kit/Button.svelte';

  let { document: chart }: { document: ChartDocument } = $props();
  const status = $derived(chart.autosave.status);
  const mine = () => ({ source: chart.source, plan: chart.plan });

  async function keepAsNew() {
    const id = await chart.autosave.keepAsNew(mine());
    if (id) await goto(`/charts/${id}`);
    else toast.error('It could not be stored just now; it stays here. Try again in a moment.');
  }

  function keepMine(version: number) {
    const draft = mine();
    chart.autosave.rebase(version);
    chart.adopt(draft);
  }
</script>

{#if status.kind === 'refused'}
  <p class="card px-3 py-2 text-warn" role="alert">{status.message} The text stays here as it is.</p>
{:else if status.kind === 'offline' && status.message}
  <p class="card px-3 py-2 text-warn" role="alert">
    {status.message} Your work is kept in this browser meanwhile.
  </p>
{:else if status.kind === 'stale'}
  {@const stored = status.stored}
  <div class="flex flex-wrap items-center gap-2 card px-3 py-2" role="alert" data-notice="stale">
    <p class="min-w-52 flex-1 text-warn">
      This chart was changed elsewhere meanwhile. Nothing was overwritten; which version do you want to keep?
    </p>
    <Button onclick={() => chart.load(stored)}>Use the other one</Button>
    <Button onclick={() => keepMine(stored.version)}>Keep mine</Button>
    <Button onclick={keepAsNew}>Keep mine as a new chart</Button>
  </div>
{:else if status.kind === 'gone'}
  <div class="flex flex-wrap items-center gap-2 card px-3 py-2" role="alert" data-notice="gone">
    <p class="min-w-52 flex-1 text-warn">
      This chart was deleted elsewhere. What you see here is still whole; what do you want to do?
    </p>
    <Button onclick={() => chart.autosave.restore()}>Restore it</Button>
    <Button onclick={keepAsNew}>Keep it as a new chart</Button>
  </div>
{/if}
