<!-- What is said of a take: three sentences at most, each with its bar and the drill that would mend it. -->
<script lang="ts">
  import Check from '@lucide/svelte/icons/check';
  import Dumbbell from '@lucide/svelte/icons/dumbbell';
  import Info from '@lucide/svelte/icons/info';
  import { drillOf } from '$lib/core/line/drills';
  import type { TakeRemark } from '$lib/core/takes/judge/remarks';
  import Button from '../kit/Button.svelte';

  interface Props {
    remarks: readonly TakeRemark[];
    onshow: (change: number) => void;
    ondrill: (remark: TakeRemark) => void;
  }
  let { remarks, onshow, ondrill }: Props = $props();
</script>

<ol class="flex flex-col gap-1.5" aria-label="Remarks on this take">
  {#each remarks as remark (remark.text)}
    <li class="flex flex-wrap items-start gap-x-3 gap-y-1.5 card px-2.5 py-1.5" data-remark={remark.kind}>
      <span class="pt-0.5" aria-hidden="true">
        {#if remark.kind === 'well'}<Check size={18} class="text-tone" />
        {:else if remark.kind === 'whole'}<Info size={18} />
        {:else}<Dumbbell size={18} class="text-target" />{/if}
      </span>
      <p class="min-w-48 flex-1 pt-0.5">{remark.text}</p>
      <span class="flex gap-1.5">
        <Button size="small" onclick={() => onshow(remark.change)}>bar {remark.bar}</Button>
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
