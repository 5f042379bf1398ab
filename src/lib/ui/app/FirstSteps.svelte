<!-- The first minute: one quiet line that says what to do next, gone once it has been done or put away. -->
<script lang="ts">
  import X from '@lucide/svelte/icons/x';
  import { onMount, untrack } from 'svelte';
  import type { Workspace } from '$lib/state/chart/workspace.svelte';
  import Button from '../kit/Button.svelte';

  let { workspace }: { workspace: Workspace } = $props();

  const PLACE = 'corvel-first-steps';
  interface Step {
    readonly id: string;
    readonly words: string;
    readonly isDone: () => boolean;
  }
  const start = untrack(() => ({ selected: workspace.selected, position: workspace.position }));
  const STEPS: readonly Step[] = [
    {
      id: 'walk',
      words: 'Walk the changes with → and ←: the orange note is where to land.',
      isDone: () => workspace.selected !== start.selected
    },
    {
      id: 'hand',
      words: 'Move the hand with ↑ and ↓, or drag the handle under the neck.',
      isDone: () => workspace.position !== start.position
    },
    {
      id: 'target',
      words: 'Press 1, 3, 5 or 7 to aim at another tone of the chord.',
      isDone: () => workspace.plan.decisions.some(({ pins }) => pins !== undefined)
    },
    { id: 'band', words: 'Press P and play it with the band.', isDone: () => workspace.view === 'rehearse' }
  ];
  let done: readonly string[] = $state.raw(STEPS.map(({ id }) => id));
  const step = $derived(STEPS.find(({ id }) => !done.includes(id)));

  function keep(ids: readonly string[]) {
    done = ids;
    try {
      localStorage.setItem(PLACE, JSON.stringify(ids));
    } catch {
      // A browser that keeps nothing shows the steps again.
    }
  }

  onMount(() => {
    try {
      const stored: unknown = JSON.parse(localStorage.getItem(PLACE) ?? '[]');
      done = Array.isArray(stored) ? stored.map(String) : [];
    } catch {
      done = [];
    }
  });
  $effect(() => {
    if (step?.isDone()) keep([...done, step.id]);
  });
</script>

{#if step && workspace.changes.length > 0}
  <p
    class="flex items-center gap-2 rounded-md border border-dashed border-edge px-3 py-1 text-sm"
    data-step={step.id}
  >
    <span class="min-w-0 flex-1">{step.words}</span>
    <Button
      size="small"
      tone="quiet"
      label="Hide the first steps"
      onclick={() => keep(STEPS.map(({ id }) => id))}><X size={14} /></Button
    >
  </p>
{/if}
