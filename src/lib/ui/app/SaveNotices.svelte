<!-- What the player has to know or decide about saving. -->
<script lang="ts">
  import { toast } from 'svelte-sonner';
  import { goto } from '$app/navigation';
  import type { Workspace } from '$lib/state/workspace.svelte';

  let { workspace }: { workspace: Workspace } = $props();
  const status = $derived(workspace.autosave.status);
  const mine = () => ({ source: workspace.source, plan: workspace.plan });

  async function keepAsNew() {
    const id = await workspace.autosave.keepAsNew(mine());
    if (id) await goto(`/charts/${id}`);
    else toast.error('It could not be stored just now; it stays here. Try again in a moment.');
  }

  function keepMine(version: number) {
    const draft = mine();
    workspace.autosave.rebase(version);
    workspace.adopt(draft);
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
    <p class="min-w-0 flex-1 text-warn">
      This chart was changed elsewhere meanwhile. Nothing was overwritten; which version shall go on?
    </p>
    <button class="btn" onclick={() => workspace.load(stored)}>Take the other one</button>
    <button class="btn" onclick={() => keepMine(stored.version)}>Keep mine</button>
    <button class="btn" onclick={keepAsNew}>Keep mine as a new chart</button>
  </div>
{:else if status.kind === 'gone'}
  <div class="flex flex-wrap items-center gap-2 card px-3 py-2" role="alert" data-notice="gone">
    <p class="min-w-0 flex-1 text-warn">
      This chart was deleted elsewhere. What you see here is still whole; what shall become of it?
    </p>
    <button class="btn" onclick={() => workspace.autosave.bringBack()}>Bring it back</button>
    <button class="btn" onclick={keepAsNew}>Keep it as a new chart</button>
  </div>
{/if}
