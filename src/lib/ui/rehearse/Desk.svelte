<!-- The desk of a rehearsal: what is played, how, how loud, and what leaves as a file. -->
<script lang="ts">
  import { NOTICES } from '$lib/audio/sounds';
  import type { Rehearsal } from '$lib/state/rehearsal.svelte';
  import Button from '../kit/Button.svelte';
  import DeskDrill from './DeskDrill.svelte';
  import DeskMix from './DeskMix.svelte';
  import DeskPedals from './DeskPedals.svelte';
  import DeskRecording from './DeskRecording.svelte';
  import DeskTempo from './DeskTempo.svelte';

  let { rehearsal, ontune }: { rehearsal: Rehearsal; ontune: () => void } = $props();
  const { backing, pedals } = $derived(rehearsal);
  let chooser: HTMLInputElement | undefined = $state();
</script>

<div class="flex flex-col gap-2 card p-3" data-desk>
  <DeskTempo {rehearsal} />
  <DeskDrill {rehearsal} />
  <DeskMix {rehearsal} {ontune} />
  <div class="flex flex-wrap items-center gap-2">
    <input
      bind:this={chooser}
      type="file"
      accept="audio/*"
      class="hidden"
      aria-label="File of a recording"
      onchange={(event) => backing.take(event.currentTarget.files)}
    />
    <Button
      size="stand"
      disabled={backing.isReading}
      hint="Play to a recording of your own instead of the band: choose a sound file, or drop it on this page. It stays on this machine."
      onclick={() => chooser?.click()}
      >{backing.isReading
        ? 'finding its beat …'
        : backing.recording
          ? 'another recording'
          : 'your own recording'}</Button
    >
    {#if backing.gone && !backing.recording}
      <Button size="stand" onclick={() => backing.bringBack()}>bring back “{backing.gone.name}”</Button>
    {/if}
    <Button
      size="stand"
      pressed={pedals.isShown}
      aria-expanded={pedals.isShown}
      hint="Pedals under the foot: next section, loop, tempo, play"
      onclick={() => (pedals.isShown = !pedals.isShown)}>pedals</Button
    >
    {#if NOTICES}<a
        class="ml-auto inline-flex min-h-11 items-center text-xs text-soft underline"
        href={NOTICES}
        target="_blank">about the sounds</a
      >{/if}
  </div>
  {#if backing.problem}<p class="text-warn" role="alert">{backing.problem}</p>{/if}
  {#if backing.recording}<DeskRecording {rehearsal} recording={backing.recording} />{/if}
  {#if pedals.isShown}<DeskPedals {pedals} />{/if}
</div>
