<!--
  The recording that plays in the band's place: its beat as it was found, shown to be corrected. It stays on this machine.
-->
<script lang="ts">
  import { QUICKEST, SLOWEST } from '$lib/core/practice/beats';
  import type { Recording } from '$lib/state/stand/backing.svelte';
  import type { Rehearsal } from '$lib/state/stand/rehearsal.svelte';
  import Button from '../kit/Button.svelte';
  import BeatPane from './BeatPane.svelte';

  let { rehearsal, recording }: { rehearsal: Rehearsal; recording: Recording } = $props();
  const backing = $derived(rehearsal.backing);
  const form = $derived(rehearsal.workspace.sheet.form);
  const bars = $derived(form.bars.map(({ start }) => start));
  const { tempo } = $derived(recording.grid);

  /** Another count of the same beat, the first staying. */
  const setTempo = (counted: number) => backing.setGrid({ ...recording.grid, tempo: counted });
</script>

<div
  class="flex flex-col gap-2 rounded-md border border-edge p-2"
  data-recording={recording.name}
  data-kept={backing.isKept || undefined}
  data-speed={backing.speed ?? undefined}
>
  <div class="flex flex-wrap items-center gap-2">
    <Button
      size="stand"
      pressed={backing.isOn}
      hint="Plays instead of the band"
      onclick={() => backing.setOn(!backing.isOn)}>use it</Button
    >
    <span class="max-w-60 truncate text-xs text-soft" title={recording.name}>{recording.name}</span>
    <span class="tabular-nums" data-found-tempo={tempo.toFixed(2)}><b>{tempo.toFixed(1)}</b> bpm</span>
    <Button
      size="stand"
      hint="Half the tempo: it was counted twice as fast"
      disabled={tempo < SLOWEST}
      onclick={() => setTempo(tempo / 2)}>÷ 2</Button
    >
    <Button
      size="stand"
      hint="Double the tempo: it was counted half as fast"
      disabled={tempo > QUICKEST}
      onclick={() => setTempo(tempo * 2)}>× 2</Button
    >
    {#if backing.taps === null}
      <Button
        size="stand"
        disabled={rehearsal.transport.isPlaying}
        hint="Listen from its beginning and tap its beat, the first tap on the first beat of the chart"
        onclick={() => backing.startTapping()}>listen and tap</Button
      >
    {:else}
      <Button
        size="stand"
        tone="strong"
        onpointerdown={() => backing.tap()}
        onkeydown={(event) => event.key === ' ' && !event.repeat && backing.tap()}
        >tap {backing.taps.length ? `(${backing.taps.length})` : 'the first beat'}</Button
      >
      <Button size="stand" onclick={() => backing.stopTapping()}>done</Button>
    {/if}
    {#if backing.isStretching}<span class="text-soft" role="status">preparing this speed …</span>{/if}
    <Button
      size="stand"
      class="ml-auto"
      hint="The band plays again; this can be undone"
      onclick={() => backing.letGo()}>remove</Button
    >
  </div>
  <div class="flex flex-wrap gap-3">
    <BeatPane
      sound={recording.sound}
      grid={recording.grid}
      beat={0}
      {bars}
      name="first beat"
      ondrag={(second) => backing.drag(0, second)}
    />
    {#if form.beats > 0}
      <BeatPane
        sound={recording.sound}
        grid={recording.grid}
        beat={form.beats}
        bars={[...bars, form.beats, ...bars.map((bar) => bar + form.beats)]}
        name="end of the form"
        ondrag={(second) => backing.drag(form.beats, second)}
      />
    {/if}
  </div>
</div>
