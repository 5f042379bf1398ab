<!-- The desk of a rehearsal: what is played, how, how loud, and what leaves as a file. -->
<script lang="ts">
  import type { Rehearsal } from '$lib/state/rehearsal.svelte';
  import DeskDrill from './DeskDrill.svelte';
  import { NOTICES } from '$lib/audio/sounds';
  import Button from '../kit/Button.svelte';
  import DeskMix from './DeskMix.svelte';
  import DeskPedals from './DeskPedals.svelte';
  import DeskRecording from './DeskRecording.svelte';
  import DeskTempo from './DeskTempo.svelte';

  let { rehearsal }: { rehearsal: Rehearsal } = $props();
  const pedals = $derived(rehearsal.pedals);
</script>

<div class="flex flex-col gap-2 card p-3" data-desk>
  <DeskTempo {rehearsal} />
  <DeskDrill {rehearsal} />
  <DeskMix {rehearsal} />
  <DeskRecording {rehearsal} />
  <div class="flex flex-wrap items-center gap-3">
    <Button
      size="stand"
      pressed={pedals.isShown}
      aria-expanded={pedals.isShown}
      hint="Pedals under the foot: next section, loop, tempo, play"
      onclick={() => (pedals.isShown = !pedals.isShown)}>pedals</Button
    >
    {#if pedals.isShown}<DeskPedals {pedals} />{/if}
    {#if NOTICES}<a
        class="ml-auto inline-flex min-h-11 items-center text-xs text-soft underline"
        href={NOTICES}
        target="_blank">about the sounds</a
      >{/if}
  </div>
</div>
