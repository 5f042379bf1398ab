<!-- What is said of a take: three sentences at most, each with its bar and the drill that would mend it. -->
<script lang="ts">
  import Check from '@lucide/svelte/icons/check';
  import Dumbbell from '@lucide/svelte/icons/dumbbell';
  import Info from '@lucide/svelte/icons/info';
  import { drillOf } from '$lib/core/line/drills';
  import Clock from '@lucide/svelte/icons/clock';
  import type { TakeHabit, TakeRemark } from '$lib/core/takes/judge/remarks';
  import Button from '../kit/Button.svelte';

  interface Props {
    remarks: readonly TakeRemark[];
    /** What holds for the whole take: neither right nor wrong. */
    habits: readonly TakeHabit[];
    onshow: (change: number) => void;
    ondrill: (remark: TakeRemark) => void;
    /** Moves the take by beats. */
    onmove: (beats: number) => void;
  }
  let { remarks, habits, onshow, ondrill, onmove }: Props = $props();
</script>

<ol class="flex flex-col gap-1.5" aria-label="Remarks on this take">
  {#each remarks as remark (remark.text)}
    <li class="flex flex-wrap items-start gap-x-3 gap-y-1.5 card px-2.5 py-1.5" data-remark={remark.kind}>
      <span class="pt-0.5" aria-hidden="true">
        {#if remark.kind === 'well'}<Check size={18} class="text-tone" />
        {:else if remark.kind === 'whole'}<Info size={18} />
        {:else if remark.kind === 'time'}<Clock size={18} />
        {:else}<Dumbbell size={18} class="text-target" />{/if}
      </span>
      <p class="min-w-48 flex-1 pt-0.5">{remark.text}</p>
      <span class="flex gap-1.5">
        {#if remark.move !== undefined}
          <Button size="small" tone="strong" data-move onclick={() => onmove(remark.move!)}>move it</Button>
        {/if}
        {#if remark.kind === 'well' || remark.kind === 'mend'}
          <Button size="small" onclick={() => onshow(remark.change)}>bar {remark.bar}</Button>
        {/if}
        {#if remark.drill}
          <Button
            size="small"
            tone="strong"
            hint="At the stand, over these changes"
            onclick={() => ondrill(remark)}
          >
            drill: {drillOf(remark.drill.drill)?.name.toLowerCase()}
          </Button>
        {/if}
      </span>
    </li>
  {/each}
</ol>
{#if habits.length > 0}
  <ul class="px-2.5 text-sm text-soft" aria-label="Habits" data-habits={habits.length}>
    {#each habits as { id, text } (id)}<li>{text}</li>{/each}
  </ul>
{/if}
