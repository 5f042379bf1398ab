<!-- How the rounds went: marked by a press while the band plays, by pedal or by key; the log takes them down. -->
<script lang="ts">
  import Check from '@lucide/svelte/icons/check';
  import X from '@lucide/svelte/icons/x';
  import { counted } from '$lib/core/theory/words';
  import type { Rehearsal } from '$lib/state/stand/rehearsal.svelte';
  import Button from '../kit/Button.svelte';
  import RoundDots from '../stand/RoundDots.svelte';

  let { rehearsal }: { rehearsal: Rehearsal } = $props();
  const open = $derived(rehearsal.marks.given.filter((mark) => mark === null).length);
</script>

<div class="flex flex-wrap items-center gap-2" role="group" aria-label="How the rounds went" data-marks>
  {#if rehearsal.transport.isPlaying}
    <Button size="stand" hint="The last round was clean (C)" onclick={() => rehearsal.marks.mark(true)}
      ><Check size={17} /> clean</Button
    >
    <Button
      size="stand"
      hint="It went wrong here: the round is not clean, and the log keeps the change (X)"
      onclick={() => rehearsal.stumble()}
      ><X size={17} /> missed{rehearsal.marks.stumbled ? ` (${rehearsal.marks.stumbled})` : ''}</Button
    >
  {:else if open > 0}
    <span class="text-soft">{counted(open, 'round')} played, not marked yet:</span>
    <Button size="stand" onclick={() => rehearsal.marks.markAll(true)}><Check size={17} /> clean</Button>
    <Button size="stand" onclick={() => rehearsal.marks.markAll(false)}><X size={17} /> not yet</Button>
  {/if}
  <RoundDots {rehearsal} most={10} />
</div>
