<!-- Where a part stands on its ladder: the stretch that is looped, its goal, and whether it is done for today. -->
<script lang="ts">
  import { loopName } from '$lib/core/practice/items/words';
  import type { Rehearsal } from '$lib/state/stand/rehearsal.svelte';

  let { rehearsal }: { rehearsal: Rehearsal } = $props();
  const climb = $derived(rehearsal.marks.climb);
  const steps = $derived(rehearsal.assigned.now?.steps ?? []);
  const goal = $derived(climb ? steps[climb.at]?.goal : undefined);
</script>

{#if climb && goal !== undefined}
  {#if climb.isDone}
    <b class="text-ink" data-climb="done">Clean at {goal}: done for today.</b>
  {:else}
    <span data-climb={climb.at}
      >{steps.length > 1
        ? `${climb.bars ? loopName({ kind: 'bars', ...climb.bars }) : 'the whole'} (${climb.at + 1} of ${steps.length}), `
        : climb.bars
          ? `${loopName({ kind: 'bars', ...climb.bars })}, `
          : ''}goal {goal} bpm</span
    >
  {/if}
{/if}
