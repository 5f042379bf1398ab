<!-- Above the cards of a round: its time, what was right and wrong, and by what it is answered. -->
<script lang="ts">
  import Mic from '@lucide/svelte/icons/mic';
  import X from '@lucide/svelte/icons/x';
  import type { Ear } from '$lib/state/input/ear.svelte';
  import type { Trainer } from '$lib/state/practice/trainer.svelte';
  import Button from '../kit/Button.svelte';

  interface Props {
    trainer: Trainer;
    ear: Ear;
    /** A MIDI instrument is listened to. */
    hasMidi: boolean;
    onmidi: () => void;
  }
  let { trainer, ear, hasMidi, onmidi }: Props = $props();
  const clock = $derived(
    `${Math.floor(trainer.left / 60)}:${String(Math.floor(trainer.left % 60)).padStart(2, '0')}`
  );
</script>

<div class="flex flex-wrap items-center gap-4 max-sm:gap-2">
  <Button size="stand" label="End the round" class="w-11" onclick={() => trainer.end()}
    ><X size={17} /></Button
  >
  <span class="font-display text-3xl tabular-nums" role="timer" aria-label="Time left of the round"
    >{clock}</span
  >
  <div class="h-2 flex-1 overflow-hidden rounded-full border border-edge">
    <div class="h-full bg-target" style:width="{(trainer.left / 120) * 100}%"></div>
  </div>
  <span class="text-base tabular-nums" data-score="{trainer.right} {trainer.wrong}"
    >{trainer.right} right{trainer.wrong ? `, ${trainer.wrong} wrong` : ''}</span
  >
  <Button size="stand" pressed={hasMidi} hint="Answer by playing" onclick={onmidi}>MIDI</Button>
  <Button
    size="stand"
    pressed={ear.input !== null}
    hint="Answer by playing or singing, in any octave: the microphone listens, nothing is kept"
    onclick={() => void ear.toggle('microphone')}
    ><Mic size={17} /> {ear.isAsking ? 'asking …' : ear.input ? 'listening' : 'listen'}</Button
  >
</div>
