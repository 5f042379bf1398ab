<!-- The rules of the target line: style and weights, the way of the line, which changes, where on the neck, how it is led in. -->
<script lang="ts">
  import { prettyNote } from '$lib/core/theory/typeset';
  import Printer from '@lucide/svelte/icons/printer';
  import X from '@lucide/svelte/icons/x';
  import { DEFAULT_PLAN, PATH_RULES, type Plan } from '$lib/core/plan/model';
  import { DIRECTIONS, type Weights } from '$lib/core/targets/options';
  import { STYLES } from '$lib/core/targets/styles';
  import { midiName } from '$lib/core/theory/note';
  import { counted } from '$lib/core/theory/words';
  import type { Workspace } from '$lib/state/chart/workspace.svelte';
  import { WISHES } from '../change/wishes';
  import Button from '../kit/Button.svelte';
  import Select from '../kit/Select.svelte';
  import Slider from '../kit/Slider.svelte';
  import Toggles from '../kit/Toggles.svelte';

  let { workspace, onprint }: { workspace: Workspace; onprint: () => void } = $props();

  const plan = $derived(workspace.plan);
  const WAYS: Readonly<Record<Plan['direction'], string>> = {
    free: 'free',
    rising: 'rising',
    falling: 'falling',
    arch: 'an arch: up to the middle, then down'
  };
  const WHICH: readonly [Plan['which'], string][] = [
    ['all', 'every change'],
    ['first-of-bar', 'the first of each bar'],
    ['cadences', 'cadences only'],
    ['long', 'those over two beats'],
    ['outlined', 'those that are outlined']
  ];
  const DEGREES: readonly (keyof Weights['degree'])[] = ['3', '7', '1', '5', 'tension'];
  const STEPS: readonly [Exclude<keyof Weights, 'degree'>, string, number, number][] = [
    ['pitch', 'a semitone', 5, 0.25],
    ['hand', 'a fret past three', 10, 0.5],
    ['string', 'a string crossed', 3, 0.05],
    ['repeat', 'a pitch repeated', 5, 0.5],
    ['held', 'a pitch held where another guide tone moves', 5, 0.25],
    ['register', 'a semitone outside the solo register', 5, 0.25],
    ['low', 'a target on string 5 or lower', 5, 0.25]
  ];
  const neck = $derived(workspace.neck);
  const lowest = $derived(Math.min(...neck.strings) + neck.capo);
  const highest = $derived(Math.max(...neck.strings) + neck.frets);
  const notes = $derived(Array.from({ length: highest - lowest + 1 }, (_, i) => lowest + i));
  const range = $derived(plan.range ?? { low: lowest, high: highest });
  const isOwn = $derived(
    PATH_RULES.some((rule) => JSON.stringify(plan[rule]) !== JSON.stringify(DEFAULT_PLAN[rule]))
  );

  function weigh(degree: keyof Weights['degree'], value: number) {
    const { weights } = plan;
    workspace.targetLine.rule(
      { weights: { ...weights, degree: { ...weights.degree, [degree]: value } } },
      true
    );
  }

  function toggleString(string: number) {
    const all = neck.strings.map((_, i) => i + 1);
    const now = plan.strings ?? all;
    const next = now.includes(string) ? now.filter((one) => one !== string) : [...now, string].sort();
    if (next.length > 0) workspace.targetLine.rule({ strings: next.length === all.length ? null : next });
  }

  function limit(part: Partial<{ low: number; high: number }>) {
    const next = { ...range, ...part };
    const isAll = next.low <= lowest && next.high >= highest;
    workspace.targetLine.rule({
      range: isAll ? null : { low: Math.min(next.low, next.high), high: Math.max(next.low, next.high) }
    });
  }

  function setAvoid(at: number, part: Partial<{ low: number; high: number }>) {
    workspace.targetLine.rule({
      avoid: plan.avoid.map((register, i) => {
        if (i !== at) return register;
        const next = { ...register, ...part };
        return { low: Math.min(next.low, next.high), high: Math.max(next.low, next.high) };
      })
    });
  }

  const OWN = 'own';
  const ONCE = 'once';
  const DIRECTION_OPTIONS = DIRECTIONS.map((way) => ({ value: way, name: WAYS[way] }));
  const WHICH_OPTIONS = WHICH.map(([value, name]) => ({ value, name }));
  const AGAIN_OPTIONS = [
    { value: ONCE, name: 'only where a chord begins' },
    ...[1, 2, 3, 4].map((beats) => ({ value: String(beats), name: `again every ${counted(beats, 'beat')}` }))
  ];
  const REACH_OPTIONS = [
    { value: 'hand' as const, name: 'under the hand' },
    { value: 'neck' as const, name: 'anywhere on the neck' }
  ];
  const noteOptions = $derived(
    notes.map((midi) => ({ value: String(midi), name: prettyNote(midiName(midi)) }))
  );
</script>

{#snippet noteSelect(label: string, value: number, onpick: (midi: number) => void)}
  <Select {label} value={String(value)} options={noteOptions} onpick={(midi) => onpick(Number(midi))} />
{/snippet}

<section
  class="flex min-h-0 flex-1 flex-col gap-3 overflow-y-auto card p-3 text-sm"
  aria-label="Rules of the target line"
>
  <header class="flex items-center justify-between gap-2">
    <h2 class="font-display text-xl">Rules of the target line</h2>
    <Button
      label="Back to the choices"
      hint="Back to the choices (R)"
      onclick={() => (workspace.isRuling = false)}><X size={16} /></Button
    >
  </header>

  <Toggles
    label="Style"
    value={workspace.targetLine.style?.id ?? OWN}
    options={STYLES.map(({ id, name, hint }) => ({ value: id, name, hint }))}
    onpick={(id) => workspace.targetLine.pickStyle(id)}
  />

  <div class="grid grid-cols-[auto_1fr_2.2rem] items-center gap-x-2 gap-y-0.5">
    <h3 class="col-span-3 mb-0.5 text-soft">Penalties on its</h3>
    {#each DEGREES as degree (degree)}
      <span>{degree}</span>
      <Slider
        class="w-full"
        label="Cost of landing on the {degree}"
        min={0}
        max={8}
        step={0.5}
        value={plan.weights.degree[degree]}
        onslide={(value) => weigh(degree, value)}
      />
      <output class="text-right">{plan.weights.degree[degree]}</output>
    {/each}
  </div>
  <div class="grid grid-cols-[auto_1fr_2.2rem] items-center gap-x-2 gap-y-0.5">
    <h3 class="col-span-3 mb-0.5 text-soft">What a step costs for</h3>
    {#each STEPS as [part, name, max, step] (part)}
      <span>{name}</span>
      <Slider
        class="w-full"
        label="Cost of {name}"
        min={0}
        {max}
        {step}
        value={plan.weights[part]}
        onslide={(value) => workspace.targetLine.rule({ weights: { ...plan.weights, [part]: value } }, true)}
      />
      <output class="text-right">{plan.weights[part]}</output>
    {/each}
  </div>

  <div class="grid grid-cols-[auto_minmax(0,1fr)] items-center gap-x-2 gap-y-1.5 border-t border-line pt-2">
    <span>The line</span>
    <Select
      label="Way of the line"
      value={plan.direction}
      options={DIRECTION_OPTIONS}
      onpick={(direction) => workspace.targetLine.rule({ direction })}
    />
    <span>Targets at</span>
    <Select
      label="Changes with a target"
      value={plan.which}
      options={WHICH_OPTIONS}
      onpick={(which) => workspace.targetLine.rule({ which })}
    />
    <span>and</span>
    <Select
      label="Targets inside a change"
      value={String(plan.every ?? ONCE)}
      options={AGAIN_OPTIONS}
      onpick={(value) => workspace.targetLine.rule({ every: value === ONCE ? null : Number(value) })}
    />
    <span>Where</span>
    <Select
      label="Where targets lie"
      value={plan.reach}
      options={REACH_OPTIONS}
      onpick={(reach) => workspace.targetLine.rule({ reach })}
    />
    <span>Strings</span>
    <div class="flex flex-wrap gap-1" role="group" aria-label="Strings">
      {#each neck.strings as _, i (i)}
        <Button
          class="w-8 px-0"
          pressed={!plan.strings || plan.strings.includes(i + 1)}
          aria-label="String {i + 1}"
          onclick={() => toggleString(i + 1)}>{i + 1}</Button
        >
      {/each}
    </div>
    <span>From</span>
    <div class="flex items-center gap-1">
      {@render noteSelect('Lowest note', Math.max(lowest, range.low), (low) => limit({ low }))}
      <span>to</span>
      {@render noteSelect('Highest note', Math.min(highest, range.high), (high) => limit({ high }))}
    </div>
    {#each plan.avoid as register, i (i)}
      <span>but not</span>
      <div class="flex items-center gap-1">
        {@render noteSelect('Lowest avoided note', register.low, (low) => setAvoid(i, { low }))}
        <span>to</span>
        {@render noteSelect('Highest avoided note', register.high, (high) => setAvoid(i, { high }))}
        <Button
          label="Allow this range again"
          onclick={() => workspace.targetLine.rule({ avoid: plan.avoid.filter((_, at) => at !== i) })}
          ><X size={14} /></Button
        >
      </div>
    {/each}
    <span></span>
    <Button
      class="justify-self-start"
      disabled={plan.avoid.length >= 6}
      onclick={() => workspace.targetLine.rule({ avoid: [...plan.avoid, { low: 60, high: 62 }] })}
      >avoid a range</Button
    >
    <span>Approach notes</span>
    <Select
      label="Approach notes into all targets"
      value={plan.approachNotes}
      options={WISHES}
      onpick={(approachNotes) => workspace.targetLine.rule({ approachNotes })}
    />
  </div>

  <div class="mt-auto flex flex-wrap gap-1.5 border-t border-line pt-2">
    <Button hint="Every target on one page: string, fret, degree" onclick={onprint}
      ><Printer size={15} /> landing sheet</Button
    >
    <Button disabled={!isOwn} onclick={() => workspace.targetLine.resetRules()}>reset</Button>
  </div>
</section>
