<!-- The desk of a rehearsal: tempo, feel, loop, drill, keys, ladder, mix and files. -->
<script lang="ts">
  import Download from '@lucide/svelte/icons/download';
  import Volume2 from '@lucide/svelte/icons/volume-2';
  import VolumeX from '@lucide/svelte/icons/volume-x';
  import { midiFile } from '$lib/core/formats/midi';
  import { DRILLS } from '$lib/core/practice/drill';
  import { PARTS, type Part } from '$lib/core/practice/events';
  import { FEELS } from '$lib/core/practice/feel';
  import { HIGHEST_TEMPO, KEY_ORDERS, LOWEST_TEMPO, type KeyOrder } from '$lib/core/practice/ladder';
  import { NO_SOUND, type Desk, type Rehearsal } from '$lib/state/rehearsal.svelte';
  import { saveFile } from '../export/file';

  let { rehearsal }: { rehearsal: Rehearsal } = $props();

  const NAMES: Readonly<Record<Part, string>> = {
    bass: 'Bass',
    chords: 'Chords',
    drums: 'Drums',
    click: 'Click',
    line: 'Drill'
  };
  const HIDES: readonly Desk['hides'][] = ['nothing', 'all but roots', 'everything'];
  const desk = $derived(rehearsal.desk);
  const workspace = $derived(rehearsal.workspace);
  const bars = $derived(workspace.sheet.form.bars);
  const sections = $derived(
    bars.filter(({ section, number }) => section && section !== bars[number - 2]?.section)
  );
  const loop = $derived(rehearsal.loop);
  const lastBar = $derived(bars.length);
  /** The bars last looped, to be taken up again. */
  let lastLoop = $state({ from: 1, to: 4 });
  const barLoop = $derived(loop.kind === 'bars' ? loop : lastLoop);
  const ladder = $derived(
    desk.ladder ?? { start: 80, goal: 120, step: 4, rounds: 2, onlyClean: false, isOn: false }
  );
  let isSaving = $state(false);

  function pickLoop(value: string) {
    const change = workspace.selected;
    if (value === 'form') rehearsal.setLoop({ kind: 'form' });
    else if (value === 'bars') setBars({});
    else if (value === 'change') rehearsal.setLoop({ kind: 'change', change });
    else if (value === 'pair') rehearsal.setLoop({ kind: 'pair', change });
    else rehearsal.setLoop({ kind: 'section', bar: Number(value) });
  }

  function setBars(part: { from?: number; to?: number }) {
    const { from, to } = { from: barLoop.from, to: barLoop.to, ...part };
    lastLoop = { from: Math.min(from, lastBar), to: Math.min(to, lastBar) };
    rehearsal.setLoop({ kind: 'bars', ...lastLoop });
  }

  function saveMidi() {
    const { now, meter, sounding: tempo } = rehearsal;
    if (!now) return;
    const bytes = midiFile({
      title: workspace.title,
      tempo,
      meter,
      events: now.events,
      markers: now.excerpt.changes.map(({ start, source }) => ({ start, name: source.symbol })),
      beats: now.excerpt.beats
    });
    saveFile(new Blob([bytes], { type: 'audio/midi' }), workspace.title, 'mid');
  }

  async function tune() {
    try {
      await (await import('$lib/audio/player')).tuningNote();
    } catch {
      rehearsal.problem = NO_SOUND;
    }
  }

  async function saveWav() {
    const { now, sounding: tempo } = rehearsal;
    if (!now) return;
    isSaving = true;
    try {
      const [{ render }, { wavFile }] = await Promise.all([
        import('$lib/audio/player'),
        import('$lib/audio/wav')
      ]);
      const seconds = (now.excerpt.beats * 60) / tempo;
      const mix = new Map(
        PARTS.map((part) => [part, [desk.mix[part].decibels, desk.mix[part].isMuted] as const])
      );
      const samples = await render(now.events, tempo, seconds, mix);
      const bytes = wavFile(samples, Math.round(samples.length / seconds));
      saveFile(new Blob([bytes], { type: 'audio/wav' }), workspace.title, 'wav');
    } catch {
      rehearsal.problem = 'The sound could not be made into a file here.';
    }
    isSaving = false;
  }
</script>

<div class="flex flex-col gap-2 card p-3 text-[14px]">
  <div class="flex flex-wrap items-center gap-2">
    <label class="flex items-center gap-1.5"
      >tempo
      <input
        type="number"
        class="btn min-h-[44px]! w-20 font-bold"
        min={LOWEST_TEMPO}
        max={HIGHEST_TEMPO}
        value={rehearsal.tempo}
        aria-label="Tempo in beats a minute"
        onchange={(event) => {
          rehearsal.setTempo(event.currentTarget.valueAsNumber);
          event.currentTarget.value = String(rehearsal.tempo);
        }}
      /></label
    >
    <button
      class="btn min-h-[44px]!"
      aria-label="Slower"
      onclick={() => rehearsal.setTempo(rehearsal.tempo - 4)}>−4</button
    >
    <button
      class="btn min-h-[44px]!"
      aria-label="Faster"
      onclick={() => rehearsal.setTempo(rehearsal.tempo + 4)}>+4</button
    >
    <button class="btn min-h-[44px]!" onclick={() => rehearsal.tap(performance.now() / 1000)}>tap</button>
    <button
      class="btn min-h-[44px]!"
      aria-pressed={desk.halfTime}
      onclick={() => rehearsal.set({ halfTime: !desk.halfTime })}>half speed</button
    >
    <button
      class="btn min-h-[44px]!"
      aria-pressed={desk.countsIn}
      onclick={() => rehearsal.set({ countsIn: !desk.countsIn })}>count in</button
    >
    <select
      class="btn min-h-[44px]!"
      aria-label="Feel"
      value={rehearsal.feel.id}
      onchange={(event) => rehearsal.set({ feel: event.currentTarget.value })}
    >
      {#each FEELS as { id, name } (id)}<option value={id}>{name}</option>{/each}
    </select>
    <select
      class="btn min-h-[44px]!"
      aria-label="Loop"
      value={loop.kind === 'section' ? String(loop.bar) : loop.kind}
      onchange={(event) => pickLoop(event.currentTarget.value)}
    >
      <option value="form">the whole form</option>
      {#each sections as { section, number } (number)}<option value={String(number)}
          >{section}, from bar {number}</option
        >{/each}
      <option value="bars">bars …</option>
      <option value="change">this chord as a drone</option>
      <option value="pair">this change, round and round</option>
    </select>
    {#if loop.kind === 'bars'}
      {#each [['from', barLoop.from], ['to', barLoop.to]] as const as [end, value] (end)}
        <label class="flex items-center gap-1"
          >{end}
          <input
            type="number"
            class="btn min-h-[44px]! w-16"
            min="1"
            max={lastBar}
            {value}
            aria-label="Loop {end} bar"
            onchange={(event) => setBars({ [end]: event.currentTarget.valueAsNumber || 0 })}
          /></label
        >
      {/each}
    {/if}
  </div>

  <div class="flex flex-wrap items-center gap-2">
    <select
      class="btn min-h-[44px]!"
      aria-label="Drill"
      value={desk.drill ?? ''}
      onchange={(event) => rehearsal.set({ drill: event.currentTarget.value || null })}
    >
      <option value="">no drill, just the band</option>
      {#each DRILLS as { id, name, hint }, i (id)}<option value={id} title={hint}>{i + 1}. {name}</option
        >{/each}
    </select>
    <select
      class="btn min-h-[44px]!"
      aria-label="Subdivision"
      value={String(desk.perBeat)}
      onchange={(event) => rehearsal.set({ perBeat: Number(event.currentTarget.value) as Desk['perBeat'] })}
    >
      <option value="2">eighths</option>
      <option value="3">triplets</option>
      <option value="4">sixteenths</option>
    </select>
    <select
      class="btn min-h-[44px]!"
      aria-label="Keys"
      value={desk.keys}
      onchange={(event) => rehearsal.set({ keys: event.currentTarget.value as KeyOrder })}
    >
      {#each KEY_ORDERS as { id, name } (id)}<option value={id}>{name}</option>{/each}
    </select>
    <select
      class="btn min-h-[44px]!"
      aria-label="Hide on the neck"
      value={desk.hides}
      onchange={(event) => rehearsal.set({ hides: event.currentTarget.value as Desk['hides'] })}
    >
      {#each HIDES as hides (hides)}<option value={hides}>hide {hides}</option>{/each}
    </select>
    <label class="flex items-center gap-1.5"
      >rest after
      <input
        type="number"
        class="btn min-h-[44px]! w-16"
        min="0"
        max="120"
        value={desk.restAfter}
        aria-label="Minutes of playing before a rest is proposed"
        onchange={(event) => {
          const minutes = event.currentTarget.valueAsNumber;
          if (minutes >= 0 && minutes <= 120) rehearsal.set({ restAfter: minutes });
        }}
      /> min</label
    >
    <div class="ml-auto flex gap-2">
      <button class="btn min-h-[44px]!" title="Band and drill on tracks of their own" onclick={saveMidi}
        ><Download size={15} /> MIDI</button
      >
      <button class="btn min-h-[44px]!" disabled={isSaving} title="One round as it sounds" onclick={saveWav}
        ><Download size={15} /> {isSaving ? 'rendering …' : 'WAV'}</button
      >
    </div>
  </div>

  <div class="flex flex-wrap items-center gap-2">
    <button
      class="btn min-h-[44px]!"
      aria-pressed={ladder.isOn}
      onclick={() => rehearsal.set({ ladder: { ...ladder, isOn: !ladder.isOn } })}>tempo ladder</button
    >
    {#if ladder.isOn}
      {#each [['start', 'from'], ['goal', 'to'], ['step', 'by'], ['rounds', 'every … rounds']] as const as [part, name] (part)}
        <label class="flex items-center gap-1"
          >{name}
          <input
            type="number"
            class="btn min-h-[44px]! w-18"
            min={part === 'start' || part === 'goal' ? LOWEST_TEMPO : 1}
            max={part === 'start' || part === 'goal' ? HIGHEST_TEMPO : 40}
            value={ladder[part]}
            aria-label="Ladder {part}"
            onchange={(event) => {
              const value = event.currentTarget.valueAsNumber;
              if (value >= 1) rehearsal.set({ ladder: { ...ladder, [part]: value } });
            }}
          /></label
        >
      {/each}
      <button
        class="btn min-h-[44px]!"
        aria-pressed={ladder.onlyClean}
        onclick={() => rehearsal.set({ ladder: { ...ladder, onlyClean: !ladder.onlyClean } })}
        >only clean ones</button
      >
      {#if ladder.onlyClean}
        <button
          class="btn min-h-[44px]! btn-strong"
          disabled={!rehearsal.isPlaying}
          onclick={() => rehearsal.markClean()}>that was clean ({rehearsal.clean})</button
        >
      {/if}
    {/if}
    <div class="ml-auto flex flex-wrap items-center gap-x-4 gap-y-1" role="group" aria-label="Mix">
      <meter
        class="w-12"
        min="0"
        max="1"
        value={rehearsal.level}
        aria-label="Loudness"
        data-level={rehearsal.level}
      ></meter>
      {#each PARTS as part (part)}
        {@const { decibels, isMuted } = desk.mix[part]}
        <div class="flex items-center gap-1">
          <button
            class="btn min-h-[44px]! btn-icon"
            aria-pressed={isMuted}
            aria-label="Mute {NAMES[part]}"
            onclick={() => rehearsal.setMix(part, { isMuted: !isMuted })}
          >
            {#if isMuted}<VolumeX size={16} />{:else}<Volume2 size={16} />{/if}
          </button>
          <label class="flex flex-col text-[12px] leading-4"
            >{NAMES[part]}
            <input
              type="range"
              class="h-6 w-20 accent-[var(--target)]"
              min="-30"
              max="6"
              step="1"
              value={decibels}
              aria-label="Volume of {NAMES[part]}"
              oninput={(event) => rehearsal.setMix(part, { decibels: Number(event.currentTarget.value) })}
            /></label
          >
        </div>
      {/each}
      <button class="btn min-h-[44px]!" onclick={tune}>A 440</button>
    </div>
  </div>
</div>
