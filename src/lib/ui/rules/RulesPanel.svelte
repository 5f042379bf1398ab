<!-- The rules of the path: taste and weights, the way of the line, which changes, where on the neck, how it is led in. -->
<script lang="ts">
  import Printer from '@lucide/svelte/icons/printer';
  import X from '@lucide/svelte/icons/x';
  import { DEFAULT_PLAN, type Plan } from '$lib/api/plan';
  import { APPROACH_FACTS, APPROACH_KINDS } from '$lib/core/moment/approach-notes';
  import { DIRECTIONS, type Weights } from '$lib/core/targets/options';
  import { TASTES } from '$lib/core/targets/tastes';
  import { midiName, prettyNote } from '$lib/core/theory/note';
  import type { Workspace } from '$lib/state/workspace.svelte';

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
    ['repeat', 'a pitch repeated', 5, 0.5]
  ];
  const neck = $derived(workspace.neck);
  const lowest = $derived(Math.min(...neck.strings) + neck.capo);
  const highest = $derived(Math.max(...neck.strings) + neck.frets);
  const notes = $derived(Array.from({ length: highest - lowest + 1 }, (_, i) => lowest + i));
  const range = $derived(plan.range ?? { low: lowest, high: highest });
  const isOwn = $derived(
    (
      ['weights', 'direction', 'which', 'every', 'reach', 'strings', 'range', 'avoid', 'approach'] as const
    ).some((rule) => JSON.stringify(plan[rule]) !== JSON.stringify(DEFAULT_PLAN[rule]))
  );

  function weigh(degree: keyof Weights['degree'], value: number) {
    const { weights } = plan;
    workspace.rule({ weights: { ...weights, degree: { ...weights.degree, [degree]: value } } }, true);
  }

  function toggleString(string: number) {
    const all = neck.strings.map((_, i) => i + 1);
    const now = plan.strings ?? all;
    const next = now.includes(string) ? now.filter((one) => one !== string) : [...now, string].sort();
    if (next.length > 0) workspace.rule({ strings: next.length === all.length ? null : next });
  }

  function limit(part: Partial<{ low: number; high: number }>) {
    const next = { ...range, ...part };
    const isAll = next.low <= lowest && next.high >= highest;
    workspace.rule({
      range: isAll ? null : { low: Math.min(next.low, next.high), high: Math.max(next.low, next.high) }
    });
  }

  function setAvoid(at: number, part: Partial<{ low: number; high: number }>) {
    workspace.rule({
      avoid: plan.avoid.map((register, i) => {
        if (i !== at) return register;
        const next = { ...register, ...part };
        return { low: Math.min(next.low, next.high), high: Math.max(next.low, next.high) };
      })
    });
  }

  function reset() {
    const { weights, direction, which, every, reach, strings, range, avoid, approach } = DEFAULT_PLAN;
    workspace.rule({ weights, direction, which, every, reach, strings, range, avoid, approach });
  }
</script>

{#snippet noteSelect(label: string, value: number, onpick: (midi: number) => void)}
  <select
    class="btn min-h-8! px-1 py-0"
    aria-label={label}
    {value}
    onchange={(event) => onpick(Number(event.currentTarget.value))}
  >
    {#each notes as midi (midi)}<option value={midi}>{prettyNote(midiName(midi))}</option>{/each}
  </select>
{/snippet}

<section
  class="flex min-h-0 flex-1 flex-col gap-3 overflow-y-auto card p-3 text-[13.5px]"
  aria-label="Rules of the path"
>
  <header class="flex items-center justify-between gap-2">
    <h2 class="font-display text-[20px]">Rules of the path</h2>
    <button
      class="btn btn-icon"
      aria-label="Back to the choices"
      title="Back to the choices (R)"
      onclick={() => (workspace.isRuling = false)}><X size={16} /></button
    >
  </header>

  <div class="flex flex-wrap gap-1" role="group" aria-label="Taste">
    {#each TASTES as { id, name, hint } (id)}
      <button
        class="btn min-h-8! px-2"
        aria-pressed={workspace.taste?.id === id}
        title={hint}
        onclick={() => workspace.pickTaste(id)}>{name}</button
      >
    {/each}
  </div>

  <fieldset class="grid grid-cols-[auto_1fr_2.2rem] items-center gap-x-2 gap-y-0.5">
    <legend class="mb-0.5 text-soft">What a target costs on its</legend>
    {#each DEGREES as degree (degree)}
      <label for="degree-{degree}">{degree}</label>
      <input
        id="degree-{degree}"
        type="range"
        min="0"
        max="8"
        step="0.5"
        class="h-6 accent-[var(--target)]"
        value={plan.weights.degree[degree]}
        oninput={(event) => weigh(degree, Number(event.currentTarget.value))}
      />
      <output class="text-right">{plan.weights.degree[degree]}</output>
    {/each}
  </fieldset>
  <fieldset class="grid grid-cols-[auto_1fr_2.2rem] items-center gap-x-2 gap-y-0.5">
    <legend class="mb-0.5 text-soft">What a step costs for</legend>
    {#each STEPS as [part, name, max, step] (part)}
      <label for="step-{part}">{name}</label>
      <input
        id="step-{part}"
        type="range"
        min="0"
        {max}
        {step}
        class="h-6 accent-[var(--target)]"
        value={plan.weights[part]}
        oninput={(event) =>
          workspace.rule({ weights: { ...plan.weights, [part]: Number(event.currentTarget.value) } }, true)}
      />
      <output class="text-right">{plan.weights[part]}</output>
    {/each}
  </fieldset>

  <div class="grid grid-cols-[auto_1fr] items-center gap-x-2 gap-y-1.5 border-t border-line pt-2">
    <label for="rule-way">The line</label>
    <select
      id="rule-way"
      class="btn min-h-8! min-w-0 py-0"
      value={plan.direction}
      onchange={(event) => workspace.rule({ direction: event.currentTarget.value as Plan['direction'] })}
    >
      {#each DIRECTIONS as way (way)}<option value={way}>{WAYS[way]}</option>{/each}
    </select>
    <label for="rule-which">Targets at</label>
    <select
      id="rule-which"
      class="btn min-h-8! min-w-0 py-0"
      value={plan.which}
      onchange={(event) => workspace.rule({ which: event.currentTarget.value as Plan['which'] })}
    >
      {#each WHICH as [which, name] (which)}<option value={which}>{name}</option>{/each}
    </select>
    <label for="rule-every">Again after</label>
    <select
      id="rule-every"
      class="btn min-h-8! min-w-0 py-0"
      value={String(plan.every ?? '')}
      onchange={({ currentTarget: { value } }) => workspace.rule({ every: value ? Number(value) : null })}
    >
      <option value="">never inside a change</option>
      {#each [1, 2, 3, 4] as beats (beats)}<option value={String(beats)}
          >{beats} {beats === 1 ? 'beat' : 'beats'} of a change</option
        >{/each}
    </select>
    <label for="rule-reach">Where</label>
    <select
      id="rule-reach"
      class="btn min-h-8! min-w-0 py-0"
      value={plan.reach}
      onchange={(event) => workspace.rule({ reach: event.currentTarget.value as Plan['reach'] })}
    >
      <option value="hand">under the hand</option>
      <option value="neck">anywhere on the neck</option>
    </select>
    <span>Strings</span>
    <div class="flex flex-wrap gap-1" role="group" aria-label="Strings">
      {#each neck.strings as _, i (i)}
        <button
          class="btn min-h-8! min-w-8! px-0"
          aria-pressed={!plan.strings || plan.strings.includes(i + 1)}
          aria-label="String {i + 1}"
          onclick={() => toggleString(i + 1)}>{i + 1}</button
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
        <button
          class="btn min-h-8! btn-icon"
          aria-label="Allow this register again"
          onclick={() => workspace.rule({ avoid: plan.avoid.filter((_, at) => at !== i) })}
          ><X size={14} /></button
        >
      </div>
    {/each}
    <span></span>
    <button
      class="justify-self-start underline decoration-dotted underline-offset-4"
      onclick={() => workspace.rule({ avoid: [...plan.avoid, { low: 60, high: 62 }] })}
      disabled={plan.avoid.length >= 6}>keep out of a register</button
    >
    <label for="rule-approach">Led in by</label>
    <select
      id="rule-approach"
      class="btn min-h-8! min-w-0 py-0"
      value={plan.approach}
      onchange={(event) => workspace.rule({ approach: event.currentTarget.value as Plan['approach'] })}
    >
      <option value="none">nothing</option>
      <option value="fitting">what fits each target</option>
      {#each APPROACH_KINDS as kind (kind)}<option value={kind} title={APPROACH_FACTS[kind].hint}
          >{APPROACH_FACTS[kind].name}</option
        >{/each}
    </select>
  </div>

  <div class="mt-auto flex flex-wrap gap-1.5 border-t border-line pt-2">
    <button class="btn" onclick={onprint}><Printer size={15} /> landing sheet</button>
    <button class="btn" disabled={!isOwn} onclick={reset}>as at first</button>
  </div>
</section>
