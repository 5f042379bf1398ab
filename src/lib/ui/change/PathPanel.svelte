<!-- How the thread is led, and what it costs. -->
<script lang="ts">
  import SlidersHorizontal from '@lucide/svelte/icons/sliders-horizontal';
  import { TASTES } from '$lib/core/targets/tastes';
  import { THREADS, type Workspace } from '$lib/state/workspace.svelte';

  let { workspace }: { workspace: Workspace } = $props();
  const DEGREE_CHOICES = ['3', '7', '1', '5'] as const;
  const path = $derived(workspace.path);
  const figures = $derived(workspace.figures);
  const summary = $derived.by(() => {
    if (!figures) return '';
    const { semitones, longest, held, guideTones, targets, shifts } = figures;
    const hand = shifts ? `${shifts} shift${shifts > 1 ? 's' : ''} of the hand` : 'no shift of the hand';
    return `${semitones} semitones in all, longest step ${longest}; ${held} held, ${guideTones} of ${targets} on a 3 or 7, ${hand}`;
  });
  /** A 3 that falls to the b3 of the same root sounds backward. */
  const fallsToMinorThird = $derived(
    (path?.targets ?? []).some(({ change, cell, step }, i) => {
      const before = path!.targets[i - 1];
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

<div class="flex flex-wrap items-center gap-1.5" role="group" aria-label="Target path">
  <select
    class="btn"
    aria-label="How the thread is led"
    value={workspace.plan.thread}
    onchange={(event) => workspace.pickThread(event.currentTarget.value as typeof workspace.plan.thread)}
  >
    {#each THREADS as { rule, name, hint } (rule)}
      <option value={rule} title={hint}>{name}</option>
    {/each}
  </select>
  {#if workspace.plan.thread === 'free'}
    <span class="text-soft">through</span>
    {#each DEGREE_CHOICES as degree (degree)}
      <button
        class="btn btn-icon"
        aria-pressed={workspace.plan.degrees.includes(degree)}
        aria-label="Allow the {degree} as a target"
        onclick={() => workspace.toggleDegree(degree)}>{degree}</button
      >
    {/each}
  {/if}
  <select
    class="btn"
    aria-label="Taste"
    title="What a path is charged for"
    value={workspace.taste?.id ?? ''}
    onchange={(event) => workspace.pickTaste(event.currentTarget.value)}
  >
    {#if !workspace.taste}<option value="">own taste</option>{/if}
    {#each TASTES as { id, name, hint } (id)}<option value={id} title={hint}>{name}</option>{/each}
  </select>
  <button
    class="btn btn-icon"
    aria-label="Rules of the path"
    title="Rules of the path (R)"
    aria-pressed={workspace.isRuling}
    onclick={() => (workspace.isRuling = !workspace.isRuling)}><SlidersHorizontal size={16} /></button
  >
  <button class="btn" aria-pressed={workspace.plan.loop} onclick={() => workspace.toggleLoop()}>loop</button>
  {#if workspace.plan.fixed.length}
    <button class="btn" onclick={() => workspace.releaseAll()}
      >release all {workspace.plan.fixed.length}</button
    >
  {/if}
  {#if workspace.solver.progress !== null}
    <progress
      class="w-24 accent-[var(--target)]"
      max="1"
      value={workspace.solver.progress}
      aria-label="Solving"
    ></progress>
    <button class="btn" onclick={() => workspace.solver.stop()}>stop</button>
  {:else if workspace.solver.isStopped}
    <span class="text-warn">stopped; the last path stays</span>
    <button class="btn" onclick={() => workspace.solver.ask(workspace.job)}>go on</button>
  {:else if path}
    <span class="min-w-0 flex-1 truncate text-soft" data-path-summary title={summary}>{summary}</span>
  {/if}
</div>
{#if fallsToMinorThird}
  <p class="text-warn">
    The thread falls from a 3 to the ♭3 of the same root; the move sounds forward only upward.
  </p>
{/if}
