<!-- Tempo, feel and loop. -->
<script lang="ts">
  import { FEELS } from '$lib/core/practice/feel';
  import { HIGHEST_TEMPO, LOWEST_TEMPO } from '$lib/core/practice/ladder';
  import { TEMPO_STEP, type Rehearsal } from '$lib/state/rehearsal.svelte';
  import Button from '../kit/Button.svelte';
  import NumberField from '../kit/NumberField.svelte';
  import Select from '../kit/Select.svelte';

  let { rehearsal }: { rehearsal: Rehearsal } = $props();
  const desk = $derived(rehearsal.desk);
  const workspace = $derived(rehearsal.workspace);
  const bars = $derived(workspace.sheet.form.bars);
  const loop = $derived(rehearsal.loop);
  const lastBar = $derived(bars.length);
  /** The bars last looped, to be taken up again. */
  let lastLoop = $state({ from: 1, to: 4 });
  const barLoop = $derived(loop.kind === 'bars' ? loop : lastLoop);
  const LOOPS = $derived([
    { value: 'form', name: 'the whole form' },
    ...bars
      .filter(({ section, number }) => section && section !== bars[number - 2]?.section)
      .map(({ section, number }) => ({ value: String(number), name: `${section}, from bar ${number}` })),
    { value: 'bars', name: 'bars …' },
    { value: 'change', name: 'this chord as a drone' },
    { value: 'pair', name: 'this change, round and round' }
  ]);

  function pickLoop(value: string) {
    const change = workspace.selected;
    if (value === 'form') rehearsal.setLoop({ kind: 'form' });
    else if (value === 'bars') setBars({});
    else if (value === 'change' || value === 'pair') rehearsal.setLoop({ kind: value, change });
    else rehearsal.setLoop({ kind: 'section', bar: Number(value) });
  }

  function setBars(part: { from?: number; to?: number }) {
    const { from, to } = { from: barLoop.from, to: barLoop.to, ...part };
    lastLoop = { from: Math.min(from, lastBar), to: Math.min(to, lastBar) };
    rehearsal.setLoop({ kind: 'bars', ...lastLoop });
  }
</script>

<div class="flex flex-wrap items-center gap-2">
  <span>tempo</span>
  <NumberField
    size="stand"
    class="w-20 font-bold"
    label="Tempo in beats a minute"
    min={LOWEST_TEMPO}
    max={HIGHEST_TEMPO}
    value={rehearsal.tempo}
    onset={(tempo) => rehearsal.setTempo(tempo)}
  />
  <Button size="stand" hint="Slower" onclick={() => rehearsal.changeTempo(-TEMPO_STEP)}>−{TEMPO_STEP}</Button>
  <Button size="stand" hint="Faster" onclick={() => rehearsal.changeTempo(TEMPO_STEP)}>+{TEMPO_STEP}</Button>
  <Button
    size="stand"
    hint="Tap the beat; the tempo follows"
    onclick={() => rehearsal.tap(performance.now() / 1000)}>tap</Button
  >
  <Button size="stand" pressed={desk.halfTime} onclick={() => rehearsal.set({ halfTime: !desk.halfTime })}
    >half speed</Button
  >
  <Button size="stand" pressed={desk.countsIn} onclick={() => rehearsal.set({ countsIn: !desk.countsIn })}
    >count in</Button
  >
  <Select
    size="stand"
    label="Feel"
    value={rehearsal.feel.id}
    options={FEELS.map(({ id, name }) => ({ value: id, name }))}
    onpick={(feel) => rehearsal.set({ feel })}
  />
  <Select
    size="stand"
    label="Loop"
    value={loop.kind === 'section' ? String(loop.bar) : loop.kind}
    options={LOOPS}
    onpick={pickLoop}
  />
  {#if loop.kind === 'bars'}
    {#each [['from', barLoop.from], ['to', barLoop.to]] as const as [end, value] (end)}
      <span>{end}</span>
      <NumberField
        size="stand"
        label="Loop {end} bar"
        min={1}
        max={lastBar}
        {value}
        onset={(bar) => setBars({ [end]: bar })}
      />
    {/each}
  {/if}
</div>
