<!-- What is seldom turned: tap and half speed, what the stand shows, rests, files, a recording of one's own, pedals. -->
<script lang="ts">
  import { onDestroy } from 'svelte';
  import Download from '@lucide/svelte/icons/download';
  import X from '@lucide/svelte/icons/x';
  import { NOTICES } from '$lib/audio/sounds';
  import type { DeskSettings } from '$lib/state/stand/desk.svelte';
  import type { Rehearsal } from '$lib/state/stand/rehearsal.svelte';
  import { settings } from '$lib/state/settings.svelte';
  import { saveFile } from '../export/file';
  import type { Format, Piece } from '../export/format';
  import { ROUND_FORMATS } from '../exports';
  import Button from '../kit/Button.svelte';
  import NumberField from '../kit/NumberField.svelte';
  import Select from '../kit/Select.svelte';
  import DeskGroup from './DeskGroup.svelte';

  let { rehearsal }: { rehearsal: Rehearsal } = $props();
  const desk = $derived(rehearsal.desk.now);
  const { backing, pedals } = $derived(rehearsal);
  let chooser: HTMLInputElement | undefined = $state();
  const HIDES: readonly { value: DeskSettings['hides']; name: string; hint: string }[] = [
    { value: 'nothing', name: 'show everything', hint: 'All notes and targets' },
    { value: 'all but roots', name: 'show roots only', hint: 'The rest comes up at each change' },
    { value: 'everything', name: 'hide everything', hint: 'From memory; shown at each change' }
  ];
  /** The file that is being made, how much of it is, and how to stop it. */
  let making: { id: string; done: number; stop: AbortController } | null = $state.raw(null);

  async function save(format: Format<Piece>) {
    if (making) {
      making.stop.abort();
      return;
    }
    const { forFile: round, workspace } = rehearsal;
    const { meter, feel, chordSound } = rehearsal.rounds;
    const tempo = rehearsal.tempo.sounding;
    if (!round) return;
    const { key } = rehearsal.picture.shown.analysis;
    const { title } = workspace.document;
    const { mix } = desk;
    const stop = new AbortController();
    making = { id: format.id, done: 0, stop };
    const onProgress = (done: number) => (making = making && { ...making, done });
    try {
      const piece = { round, title, meter, tempo, key, feel, mix, chordSound };
      saveFile(await format.make(piece, { onProgress, signal: stop.signal }), title, format.id);
    } catch {
      if (!stop.signal.aborted) rehearsal.notice.problem = format.failure;
    }
    making = null;
  }
  onDestroy(() => making?.stop.abort());
</script>

<div class="flex flex-col gap-2 border-t border-line pt-2" data-desk-more>
  <DeskGroup name="Tempo">
    <Button
      size="stand"
      hint="Tap the beat; the tempo follows"
      onclick={() => rehearsal.tempo.tap(performance.now() / 1000)}>tap</Button
    >
    <Button
      size="stand"
      pressed={desk.halfTime}
      onclick={() => rehearsal.desk.set({ halfTime: !desk.halfTime })}>half speed</Button
    >
  </DeskGroup>
  <DeskGroup name="Stand">
    {#if desk.drill}
      <Select
        size="stand"
        label="How the drill is shown"
        value={settings.now.lineAs}
        options={[
          { value: 'time', name: 'as tab' },
          { value: 'score', name: 'staff and tab' }
        ]}
        onpick={(lineAs) => settings.change({ lineAs: lineAs as 'time' | 'score' })}
      />
    {/if}
    <Select
      size="stand"
      label="What the neck shows"
      value={desk.hides}
      options={HIDES}
      onpick={(hides) => rehearsal.desk.set({ hides })}
    />
    <span class="inline-flex items-center gap-1.5"
      >remind me to rest after <NumberField
        size="stand"
        label="Minutes of playing before a rest is proposed"
        min={0}
        max={120}
        unit="min"
        value={settings.now.restAfter}
        onset={(restAfter) => settings.change({ restAfter })}
      /></span
    >
    <Button
      size="stand"
      pressed={pedals.isShown}
      aria-expanded={pedals.isShown}
      hint="Pedals under the foot: next section, loop, tempo, play"
      onclick={() => (pedals.isShown = !pedals.isShown)}>pedals</Button
    >
  </DeskGroup>
  <DeskGroup name="Files">
    {#each ROUND_FORMATS as format (format.id)}
      <Button
        size="stand"
        disabled={making !== null && making.id !== format.id}
        hint={making?.id === format.id ? 'Stop making it' : format.hint}
        onclick={() => save(format)}
        >{#if making?.id === format.id}<X size={15} /> {Math.round(making.done * 100)} %{:else}<Download
            size={15}
          />
          {format.name}{/if}</Button
      >
    {/each}
    <Button
      size="stand"
      pressed={desk.ends}
      hint="A file ends on the home chord, in one bar more"
      onclick={() => rehearsal.desk.set({ ends: !desk.ends })}>with an ending</Button
    >
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
          : 'play to a recording'}</Button
    >
    {#if backing.gone && !backing.recording}
      <Button size="stand" onclick={() => backing.restore()}>restore “{backing.gone.name}”</Button>
    {/if}
    {#if NOTICES}<a
        class="ml-auto inline-flex min-h-11 items-center text-xs text-soft underline"
        href={NOTICES}
        target="_blank">about the sounds</a
      >{/if}
  </DeskGroup>
</div>
