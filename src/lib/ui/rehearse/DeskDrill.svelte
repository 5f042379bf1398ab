<!-- What is drilled, in which keys, what is hidden, when to rest; and files. -->
<script lang="ts">
  import { onDestroy } from 'svelte';
  import Download from '@lucide/svelte/icons/download';
  import X from '@lucide/svelte/icons/x';
  import { DRILLS } from '$lib/core/line/drills';
  import { KEY_ORDERS } from '$lib/core/practice/ladder';
  import type { Desk, Rehearsal } from '$lib/state/rehearsal.svelte';
  import { saveFile } from '../export/file';
  import type { Format, Piece } from '../export/format';
  import { ROUND_FORMATS } from '../exports';
  import Button from '../kit/Button.svelte';
  import NumberField from '../kit/NumberField.svelte';
  import { settings } from '$lib/state/settings.svelte';
  import Select from '../kit/Select.svelte';

  let { rehearsal }: { rehearsal: Rehearsal } = $props();
  const desk = $derived(rehearsal.desk);
  const NONE = 'none';
  const DRILL_OPTIONS = [
    { value: NONE, name: 'no drill, just the band' },
    ...DRILLS.map(({ id, name, hint }, i) => ({ value: id, name: `${i + 1}. ${name}`, hint }))
  ];
  const SUBDIVISIONS = [
    { value: '2', name: 'eighths' },
    { value: '3', name: 'triplets' },
    { value: '4', name: 'sixteenths' }
  ];
  const HIDES: readonly { value: Desk['hides']; name: string; hint: string }[] = [
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
    const { forFile: round, meter, sounding: tempo, workspace, feel } = rehearsal;
    if (!round) return;
    const { key } = rehearsal.shown.analysis;
    const { title } = workspace.document;
    const { mix } = desk;
    const { chordSound } = rehearsal;
    const stop = new AbortController();
    making = { id: format.id, done: 0, stop };
    const onProgress = (done: number) => (making = making && { ...making, done });
    try {
      const piece = { round, title, meter, tempo, key, feel, mix, chordSound };
      saveFile(await format.make(piece, { onProgress, signal: stop.signal }), title, format.id);
    } catch {
      if (!stop.signal.aborted) rehearsal.problem = format.trouble;
    }
    making = null;
  }
  onDestroy(() => making?.stop.abort());
</script>

<div class="flex flex-wrap items-center gap-2">
  <Select
    size="stand"
    label="Drill"
    value={desk.drill ?? NONE}
    options={DRILL_OPTIONS}
    onpick={(drill) => rehearsal.set({ drill: drill === NONE ? null : drill })}
  />
  <Select
    size="stand"
    label="Subdivision"
    value={String(desk.perBeat)}
    options={SUBDIVISIONS}
    onpick={(perBeat) => rehearsal.set({ perBeat: Number(perBeat) as Desk['perBeat'] })}
  />
  <Select
    size="stand"
    label="Keys"
    value={desk.keys}
    options={KEY_ORDERS.map(({ id, name }) => ({ value: id, name }))}
    onpick={(keys) => rehearsal.set({ keys })}
  />
  {#if desk.drill}
    <Select
      size="stand"
      label="How the drill is shown"
      value={settings.now.lineAs}
      options={[
        { value: 'time', name: 'over threads' },
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
    onpick={(hides) => rehearsal.set({ hides })}
  />
  <span class="inline-flex items-center gap-1.5"
    >remind me to rest after <NumberField
      size="stand"
      label="Minutes of playing before a rest is proposed"
      min={0}
      max={120}
      unit="min"
      value={desk.restAfter}
      onset={(restAfter) => rehearsal.set({ restAfter })}
    /></span
  >
  <div class="ml-auto flex gap-2">
    <Button
      size="stand"
      pressed={desk.ends}
      hint="A file ends on the home chord, in one bar more"
      onclick={() => rehearsal.set({ ends: !desk.ends })}>ending</Button
    >
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
  </div>
</div>
