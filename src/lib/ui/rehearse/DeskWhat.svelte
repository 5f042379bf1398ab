<!-- What is practised: the drill, over which bars, in which keys. -->
<script lang="ts">
  import { DRILLS } from '$lib/core/line/drills';
  import { KEY_ORDERS } from '$lib/core/practice/ladder';
  import type { DeskSettings } from '$lib/state/stand/desk.svelte';
  import type { Rehearsal } from '$lib/state/stand/rehearsal.svelte';
  import NumberField from '../kit/NumberField.svelte';
  import Select from '../kit/Select.svelte';
  import DeskGroup from './DeskGroup.svelte';

  let { rehearsal }: { rehearsal: Rehearsal } = $props();
  const desk = $derived(rehearsal.desk.now);
  const workspace = $derived(rehearsal.workspace);
  const bars = $derived(workspace.sheet.form.bars);
  const loop = $derived(rehearsal.loop.wish);
  const lastBar = $derived(bars.length);
  const NONE = 'none';
  const DRILL_OPTIONS = [
    { value: NONE, name: 'No drill, just the band' },
    ...DRILLS.map(({ id, name, hint }, i) => ({ value: id, name: `${i + 1}. ${name}`, hint }))
  ];
  const SUBDIVISIONS = [
    { value: '2', name: 'eighths' },
    { value: '3', name: 'triplets' },
    { value: '4', name: 'sixteenths' }
  ];
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
    { value: 'pair', name: 'this chord and the next' }
  ]);

  function pickLoop(value: string) {
    const change = workspace.selected;
    if (value === 'form') rehearsal.loop.set({ kind: 'form' });
    else if (value === 'bars') setBars({});
    else if (value === 'change' || value === 'pair') rehearsal.loop.set({ kind: value, change });
    else rehearsal.loop.set({ kind: 'section', bar: Number(value) });
  }

  function setBars(part: { from?: number; to?: number }) {
    const { from, to } = { from: barLoop.from, to: barLoop.to, ...part };
    lastLoop = { from: Math.min(from, lastBar), to: Math.min(to, lastBar) };
    rehearsal.loop.set({ kind: 'bars', ...lastLoop });
  }
</script>

<DeskGroup name="What">
  <Select
    size="stand"
    label="Drill"
    value={desk.drill ?? NONE}
    options={DRILL_OPTIONS}
    onpick={(drill) => rehearsal.desk.set({ drill: drill === NONE ? null : drill })}
  />
  {#if desk.drill}
    <Select
      size="stand"
      label="Subdivision"
      value={String(desk.perBeat)}
      options={SUBDIVISIONS}
      onpick={(perBeat) => rehearsal.desk.set({ perBeat: Number(perBeat) as DeskSettings['perBeat'] })}
    />
  {/if}
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
  <Select
    size="stand"
    label="Keys"
    value={desk.keys}
    options={KEY_ORDERS.map(({ id, name }) => ({ value: id, name }))}
    onpick={(keys) => rehearsal.desk.set({ keys })}
  />
</DeskGroup>
