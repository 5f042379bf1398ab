<script lang="ts">
  import { onMount } from 'svelte';
  import { goto } from '$app/navigation';
  import { page } from '$app/state';
  import { Autosave } from '$lib/state/chart/autosave.svelte';
  import { Drafts, type KeptDraft } from '$lib/state/chart/drafts';
  import { otherWindows } from '$lib/state/windows';

  const id = $derived(page.status === 404 ? (page.params.id ?? null) : null);
  /** Text of a deleted chart, still on this device. */
  let left: KeptDraft | null = $state.raw(null);
  let problem = $state('');
  const drafts = new Drafts();

  onMount(async () => {
    if (id) left = (await drafts.leftFor(id, await otherWindows())).at(-1) ?? null;
  });

  async function keep(draft: KeptDraft) {
    const saved = await new Autosave({ id: id!, version: draft.base }).keepAsNew(draft);
    if (!saved) problem = 'It could not be stored just now; it stays on this device. Try again in a moment.';
    else {
      drafts.drop(draft.place);
      await goto(`/charts/${saved}`);
    }
  }
</script>

<svelte:head><title>Corvel</title></svelte:head>
<main class="mx-auto max-w-xl p-10">
  <h1 class="font-display text-3xl">That did not work</h1>
  <p class="mt-3">{page.error?.message ?? 'Something went wrong.'}</p>
  {#if left}
    {@const draft = left}
    <p class="mt-3">Its text, as you last typed it here, is still in this browser:</p>
    <pre class="mt-2 max-h-60 overflow-auto card p-3 text-base">{draft.source}</pre>
    <button class="btn btn-strong mt-3" onclick={() => keep(draft)}>Keep it as a new chart</button>
    {#if problem}<p class="mt-2 text-warn" role="alert">{problem}</p>{/if}
  {/if}
  <p><a class="btn mt-5" href="/">Back to the songbook</a></p>
</main>
