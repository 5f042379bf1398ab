<!-- The target line in one sentence; how it is led, what else could be had and where every voice goes are a step behind. -->
<script lang="ts">
  import SlidersHorizontal from '@lucide/svelte/icons/sliders-horizontal';
  import { sure } from '$lib/core/base/list';
  import { STYLES } from '$lib/core/targets/styles';
  import { pinsOf } from '$lib/core/plan/edits';
  import { CHORD_SLOTS } from '$lib/core/plan/model';
  import { counted } from '$lib/core/theory/words';
  import { THREADS } from '$lib/state/chart/paths.svelte';
  import type { Workspace } from '$lib/state/chart/workspace.svelte';
  import Hear from '../app/Hear.svelte';
  import Button from '../kit/Button.svelte';
  import Progress from '../kit/Progress.svelte';
  import Select from '../kit/Select.svelte';

  let { workspace }: { workspace: Workspace } = $props();
  const OWN = 'own';
  const paths = $derived(workspace.paths);
  const path = $derived(paths.path);
  const figures = $derived(paths.figures);
  const pinned = $derived(pinsOf(workspace.plan).length);
  let isOpen = $state(false);

  const led = $derived(
    sure(
      THREADS.find(({ rule }) => rule === workspace.plan.thread),
      'THREADS'
    )
  );
  const summary = $derived.by(() => {
    if (!figures) return '';
    const { semitones, longest, held, guideTones, targets, shifts } = figures;
    const hand = shifts ? counted(shifts, 'shift') + ' of the hand' : 'the hand stays';
    return `${led.name}: ${guideTones === targets ? 'every target' : `${guideTones} of ${targets} targets`} a 3rd or 7th, ${held} held, ${semitones} semitones in all, steps of ${longest} at most; ${hand}.`;
  });
  /** What each way of leading would cost, where it has been worked out. */
  function priced(rule: (typeof THREADS)[number]['rule'], hint: string): string {
    const other = paths.others.find((one) => one.rule === rule);
    if (!other) return hint;
    return `${hint}; ${other.path ? `${other.path.semitones} semitones in all` : 'none here'}`;
  }

  /** A 3 that falls to the ♭3 of the same root sounds backward. */
  const fallsToMinorThird = $derived(
    (path?.targets ?? []).some(({ change, cell, step }, i, targets) => {
      const before = targets[i - 1];
      const root = (index: number) => workspace.changes[index]?.chord?.root;
      return (
        step?.semitones === -1 &&
        before?.cell.degree === '3' &&
        cell.degree === 'b3' &&
        root(change) === root(before.change)
      );
    })
  );
</script>

<div class="flex flex-wrap items-center gap-x-3 gap-y-1" role="group" aria-label="Target line">
  {#if paths.solver.progress !== null}
    <span class="flex flex-1 items-center gap-2"
      >Working it out <Progress label="Working out the target line" value={paths.solver.progress} />
      <Button size="small" onclick={() => paths.solver.stop()}>stop</Button></span
    >
  {:else if paths.solver.isStopped}
    <span class="flex flex-1 items-center gap-2 text-warn"
      >Stopped; the last line stays.
      <Button size="small" onclick={() => paths.solver.ask(paths.job)}>go on</Button></span
    >
  {:else}
    <p class="min-w-56 flex-1 max-sm:basis-full" data-path-summary>{summary}</p>
  {/if}
  {#if pinned}
    <Button
      size="small"
      hint="Let every target be worked out again"
      onclick={() => workspace.targetLine.unpinAll()}
      >unpin {pinned === 1 ? 'the one pinned' : `all ${pinned}`}</Button
    >
  {/if}
  <Hear
    {workspace}
    ask={{ kind: 'line' }}
    label="Hear the target line"
    hint="From this change on, each target over its chord (K)"
  />
  <Button
    size="small"
    pressed={isOpen}
    aria-expanded={isOpen}
    hint="How the target line is led, and the other lines beside it"
    onclick={() => (isOpen = !isOpen)}>other lines</Button
  >
  <Button
    size="small"
    pressed={paths.wantsAlternatives}
    aria-expanded={paths.wantsAlternatives}
    hint="The next best lines, each with its price (X)"
    onclick={() => (paths.wantsAlternatives = !paths.wantsAlternatives)}>alternatives</Button
  >
  <Button
    size="small"
    pressed={workspace.showsLanes}
    hint="Voice leading: where every chord tone goes (V)"
    onclick={() => (workspace.showsLanes = !workspace.showsLanes)}>voice leading</Button
  >
  <Button
    size="small"
    label="Rules of the target line"
    hint="Rules of the target line (R)"
    pressed={workspace.isRuling}
    onclick={() => (workspace.isRuling = !workspace.isRuling)}><SlidersHorizontal size={14} /></Button
  >
</div>
{#if fallsToMinorThird}
  <p class="text-warn">
    The line falls from a major third to the minor third of the same root. That sounds backward; players bend
    it the other way, up.
  </p>
{/if}
{#if isOpen}
  <div class="flex flex-wrap items-center gap-1.5" role="group" aria-label="How the target line is led">
    <Select
      label="How the target line is led"
      value={workspace.plan.thread}
      options={THREADS.map(({ rule, name, hint }) => ({ value: rule, name, hint: priced(rule, hint) }))}
      onpick={(rule) => workspace.targetLine.pickThread(rule)}
    />
    {#if workspace.plan.thread === 'free'}
      <span class="text-soft">through</span>
      {#each CHORD_SLOTS as degree (degree)}
        <Button
          pressed={workspace.plan.degrees.includes(degree)}
          aria-label="Allow the {degree} as a target"
          class="w-8.5"
          onclick={() => workspace.targetLine.toggleDegree(degree)}>{degree}</Button
        >
      {/each}
    {/if}
    <Select
      label="Style"
      hint="What a line is charged for"
      value={workspace.targetLine.style?.id ?? OWN}
      options={[
        ...(workspace.targetLine.style ? [] : [{ value: OWN, name: 'a style of your own' }]),
        ...STYLES.map(({ id, name, hint }) => ({ value: id, name, hint }))
      ]}
      onpick={(id) => workspace.targetLine.pickStyle(id)}
    />
    <Button
      pressed={workspace.plan.loop}
      hint="The step from the last target back to the first counts too"
      onclick={() => workspace.targetLine.toggleLoop()}>loop</Button
    >
  </div>
{/if}
