<!-- What a player should know of the opened take before reading it: interrupted, of another day's chart, hard to hear. -->
<script lang="ts">
  import { toast } from 'svelte-sonner';
  import { listenAgain } from '$lib/state/takes/sound';
  import { FAULT_WORDS, type Takes } from '$lib/state/takes/takes.svelte';
  import Button from '../kit/Button.svelte';

  let { takes }: { takes: Takes } = $props();
  const data = $derived(takes.shelf.opened?.data ?? null);

  async function judgeByToday() {
    const undo = await takes.judging.byToday();
    if (undo)
      toast('Judged with today’s choices.', { action: { label: 'Undo', onClick: () => void undo() } });
  }
</script>

{#if takes.shelf.unheard === 'being heard'}
  <p class="card px-3 py-2" role="status" data-being-heard>
    This take is being listened to. It is shown here as soon as it is read.
  </p>
{:else if takes.shelf.unheard === 'torn off'}
  <p class="flex flex-wrap items-center gap-3 card px-3 py-2" role="status">
    This take was interrupted. Its sound is kept up to a moment before.
    <Button size="small" tone="strong" onclick={() => void listenAgain(takes)}>Listen to it</Button>
  </p>
{/if}
{#if data?.today || takes.judging.isOfThen}
  <p class="flex flex-wrap items-center gap-3 card px-3 py-2 text-sm" role="status" data-version>
    {#if data?.today}
      This take is judged with choices made after the day you played it.
    {:else}
      You have changed the chart since. This take is judged by the chart and choices of the day it was played.
    {/if}
    {#if takes.judging.isOtherwise}
      <Button size="small" onclick={() => void judgeByToday()}>Judge with today’s choices</Button>
    {/if}
  </p>
{/if}
{#each data?.troubles ?? [] as trouble (trouble)}
  <p class="card px-3 py-2 text-sm text-warn" role="status">{FAULT_WORDS[trouble]}</p>
{/each}
