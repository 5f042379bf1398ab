<!--
  The foot of the stand: stop, the two marks, Lost; beside them the rounds, or a session's clock with what comes next. While the
  page is awake the slim bar stands in their place.
-->
<script lang="ts">
  import ChevronRight from '@lucide/svelte/icons/chevron-right';
  import Check from '@lucide/svelte/icons/check';
  import Compass from '@lucide/svelte/icons/compass';
  import SlidersHorizontal from '@lucide/svelte/icons/sliders-horizontal';
  import Square from '@lucide/svelte/icons/square';
  import X from '@lucide/svelte/icons/x';
  import type { Landings } from '$lib/state/stand/landings.svelte';
  import { TEMPO_STEP, type Rehearsal } from '$lib/state/stand/rehearsal.svelte';
  import { announced } from '$lib/state/practice/run-part';
  import { sessionRun } from '$lib/state/practice/session-run.svelte';
  import Button from '../kit/Button.svelte';
  import ClimbSaid from '../rehearse/ClimbSaid.svelte';
  import Heard from '../rehearse/Heard.svelte';
  import Listening from '../rehearse/Listening.svelte';
  import RoundDots from './RoundDots.svelte';

  interface Props {
    rehearsal: Rehearsal;
    landings: Landings;
    isAwake: boolean;
    /** The next part of the session. */
    onnext: () => void;
    ondesk: () => void;
  }
  let { rehearsal, landings, isAwake, onnext, ondesk }: Props = $props();

  /** Told on the button: a press has its answer where it was pressed. */
  const clean = $derived(rehearsal.marks.given.filter((mark) => mark === true).length);
  const upcoming = $derived(sessionRun.parts[sessionRun.at + 1]);
</script>

<div class="flex flex-wrap items-center gap-2 text-lg" data-stand-foot>
  <div class="flex flex-1 basis-84 gap-2 sm:flex-none sm:basis-auto" data-marks>
    <Button
      size="stand"
      tone="strong"
      class="min-h-12 min-w-14 max-sm:flex-1"
      aria-label="Stop"
      hint="Stop (Space)"
      onclick={() => rehearsal.transport.toggle()}><Square size={20} class="fill-current" /></Button
    >
    <Button
      size="stand"
      class="min-h-12 max-sm:flex-1 max-sm:px-1"
      hint="The last round was clean (C)"
      onclick={() => rehearsal.marks.mark(true)}><Check size={19} /> clean{clean ? ` (${clean})` : ''}</Button
    >
    <Button
      size="stand"
      class="min-h-12 max-sm:flex-1 max-sm:px-1"
      hint="It went wrong here: the round is not clean, and the log keeps the change (X)"
      onclick={() => rehearsal.stumble()}
      ><X size={19} /> missed{rehearsal.marks.stumbled ? ` (${rehearsal.marks.stumbled})` : ''}</Button
    >
    <Button
      size="stand"
      class="min-h-12 max-sm:flex-1 max-sm:px-1"
      pressed={rehearsal.rounds.isLost}
      hint="Shows the form and plays the melody until you press it again (Y)"
      onclick={() => rehearsal.toggleLost()}><Compass size={19} /> lost</Button
    >
  </div>
  <div class="flex min-h-12 min-w-0 flex-1 basis-72 items-center justify-end gap-3">
    <Heard {rehearsal} {landings} />
    {#if isAwake}
      <div class="flex min-w-0 flex-wrap items-center justify-end gap-2" data-slim>
        <Button size="stand" label="Slower" class="w-11" onclick={() => rehearsal.tempo.change(-TEMPO_STEP)}
          >−</Button
        >
        <b class="tabular-nums" data-sounding>{rehearsal.tempo.sounding}</b>
        <Button size="stand" label="Faster" class="w-11" onclick={() => rehearsal.tempo.change(TEMPO_STEP)}
          >+</Button
        >
        <span class="max-sm:hidden"><Listening {rehearsal} {landings} /></span>
        {#if sessionRun.isOn && upcoming}
          <Button size="stand" hint="Next: {announced(upcoming)}" onclick={onnext}
            >next <ChevronRight size={17} /></Button
          >
        {/if}
        <Button
          size="stand"
          aria-expanded="false"
          hint="All settings, while the band plays on (Esc)"
          data-desk-bar
          onclick={ondesk}><SlidersHorizontal size={17} /> desk</Button
        >
      </div>
    {:else if sessionRun.isOn}
      <span
        class="font-display text-3xl tabular-nums max-sm:text-2xl {sessionRun.left <= 0 ? 'text-target' : ''}"
        role="timer"
        aria-label="Time left of this part"
        data-stand-clock>{sessionRun.clock}</span
      >
      <span class="min-w-0 flex-1 truncate text-soft" data-stand-then>
        {#if rehearsal.marks.climb}<ClimbSaid {rehearsal} />{rehearsal.marks.climb.isDone
            ? ' '
            : ' · '}{/if}{upcoming ? `Next: ${announced(upcoming)}` : 'The last part'}</span
      >
      <RoundDots {rehearsal} most={4} />
    {:else}
      {#if landings.ear.input && landings.told > 0}
        <span class="whitespace-nowrap tabular-nums" data-landed="{landings.landed}/{landings.told}"
          ><b>{landings.landed}</b> of {landings.told} landed</span
        >
      {/if}
      <RoundDots {rehearsal} most={8} />
      <span class="whitespace-nowrap text-soft tabular-nums max-sm:hidden"
        >round {rehearsal.transport.round + 1}</span
      >
      <b
        class="whitespace-nowrap tabular-nums"
        data-intensity={rehearsal.intensity.toFixed(2)}
        data-follows={rehearsal.follower.intensity !== null}
        data-sounding>{rehearsal.tempo.sounding} bpm</b
      >
    {/if}
  </div>
</div>
