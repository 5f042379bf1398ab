<!--
  A recording of the player's own in the band's place: dropped or chosen, its beat found, shown and corrected. It stays on
  this machine.
-->
<script lang="ts">
  import { QUICKEST, SLOWEST } from '$lib/core/practice/beats';
  import type { Rehearsal } from '$lib/state/rehearsal.svelte';
  import Button from '../kit/Button.svelte';
  import BeatPane from './BeatPane.svelte';

  let { rehearsal }: { rehearsal: Rehearsal } = $props();
  const backing = $derived(rehearsal.backing);
  const recording = $derived(backing.recording);
  const form = $derived(rehearsal.workspace.sheet.form);
  const bars = $derived(form.bars.map(({ start }) => start));
  let chooser: HTMLInputElement | undefined = $state();
  let isOver = $state(false);

  function take(files: FileList | null | undefined) {
    const file = files?.[0];
    if (file) void backing.take(file);
  }

  /** Another count of the same beat: its half, its double, or a little more or less, the first beat staying. */
  function setTempo(tempo: number) {
    if (recording && tempo >= SLOWEST / 2 && tempo <= QUICKEST * 2)
      backing.setGrid({ ...recording.grid, tempo });
  }
</script>

<!-- svelte-ignore a11y_no_static_element_interactions -->
<div
  class="flex flex-col gap-2 rounded-md border border-dashed p-2 {isOver
    ? 'border-target bg-lit'
    : 'border-edge'}"
  data-recording={recording?.name ?? ''}
  data-kept={backing.isKept || undefined}
  ondragover={(event) => {
    event.preventDefault();
    isOver = true;
  }}
  ondragleave={() => (isOver = false)}
  ondrop={(event) => {
    event.preventDefault();
    isOver = false;
    take(event.dataTransfer?.files);
  }}
>
  <div class="flex flex-wrap items-center gap-2">
    <input
      bind:this={chooser}
      type="file"
      accept="audio/*"
      class="hidden"
      aria-label="File of a recording"
      onchange={(event) => take(event.currentTarget.files)}
    />
    <Button
      size="stand"
      disabled={backing.isReading}
      hint="Play to a recording of your own instead of the band"
      onclick={() => chooser?.click()}
      >{backing.isReading
        ? 'finding its beat …'
        : recording
          ? 'another recording'
          : 'your own recording'}</Button
    >
    {#if !recording}
      <span class="text-xs text-soft">drop a sound file here; it stays on this machine</span>
      {#if backing.gone}
        <Button size="stand" onclick={() => backing.bringBack()}>bring back “{backing.gone.name}”</Button>
      {/if}
    {:else}
      <Button
        size="stand"
        pressed={backing.isOn}
        hint="It plays in the band’s place"
        onclick={() => backing.setOn(!backing.isOn)}>play it</Button
      >
      <span class="max-w-60 truncate text-xs text-soft" title={recording.name}>{recording.name}</span>
      <span class="tabular-nums" data-found-tempo={recording.grid.tempo.toFixed(2)}
        ><b>{recording.grid.tempo.toFixed(1)}</b> bpm</span
      >
      <Button
        size="stand"
        hint="Half as fast: it was counted double"
        onclick={() => setTempo(recording.grid.tempo / 2)}>÷ 2</Button
      >
      <Button
        size="stand"
        hint="Twice as fast: it was counted half"
        onclick={() => setTempo(recording.grid.tempo * 2)}>× 2</Button
      >
      {#if backing.taps === null}
        <Button
          size="stand"
          disabled={rehearsal.isPlaying}
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
      <Button
        size="stand"
        class="ml-auto"
        hint="The band plays again; this can be undone"
        onclick={() => backing.letGo()}>let it go</Button
      >
    {/if}
  </div>
  {#if backing.problem}<p class="text-warn" role="alert">{backing.problem}</p>{/if}
  {#if recording}
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
          name="where the form is through"
          ondrag={(second) => backing.drag(form.beats, second)}
        />
      {/if}
    </div>
  {/if}
</div>
