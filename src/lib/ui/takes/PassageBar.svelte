<!-- Some bars of a take: marked, looped, kept as a line or lick. -->
<script lang="ts">
  import Repeat from '@lucide/svelte/icons/repeat';
  import type { TakeReading } from '$lib/state/takes/reading.svelte';
  import Button from '../kit/Button.svelte';
  import NumberField from '../kit/NumberField.svelte';

  interface Props {
    reading: TakeReading;
    /** Bars of the form. */
    bars: number;
    onsave: (id: 'line' | 'lick') => void;
  }
  let { reading, bars, onsave }: Props = $props();
  const passage = $derived(reading.passage);
</script>

<p
  class="flex flex-wrap items-center gap-2 text-sm text-soft"
  data-passage={passage && `${passage.from}-${passage.to}`}
>
  A passage of it: bars
  {#each ['from', 'to'] as const as end (end)}
    {#if end === 'to'}to{/if}
    <NumberField
      label={end === 'from' ? 'First bar of the passage' : 'Last bar of the passage'}
      value={passage?.[end] ?? reading.change?.bar ?? 1}
      min={1}
      max={bars}
      onset={(bar) => reading.mark(end, bar)}
    />
  {/each}
  {#if passage}
    <Button size="small" onclick={() => reading.loopPassage()}><Repeat size={14} /> loop it</Button>
    <Button size="small" onclick={() => onsave('line')}>keep as a line</Button>
    <Button size="small" onclick={() => onsave('lick')}>keep as a lick</Button>
    <Button size="small" onclick={() => (reading.passage = null)}>clear</Button>
  {/if}
</p>
