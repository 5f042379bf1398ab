<!-- Where the player stumbled: at which change does it go wrong? -->
<script lang="ts">
  import { max } from 'd3-array';
  import type { Pictures } from '$lib/api/practice';
  import { firstOf } from '$lib/core/base/list';
  import ChordSymbol from '../chord/ChordSymbol.svelte';
  import Button from '../kit/Button.svelte';
  import Select from '../kit/Select.svelte';
  import Picture from './Picture.svelte';
  import { drillSeam } from './seam';

  let { stumbles }: { stumbles: Pictures['stumbles'] } = $props();
  let picked = $state('');
  const chart = $derived(stumbles.find((one) => one.chart === picked) ?? firstOf(stumbles));
  const most = $derived(max(chart.changes, ({ times }) => times) ?? 1);
</script>

<Picture
  question="At which change does it go wrong?"
  columns={['chart', 'bar', 'chord', 'times']}
  rows={stumbles.flatMap(({ title, changes }) =>
    changes.map(({ bar, symbol, times }) => [title, bar, symbol, times])
  )}
>
  {#snippet tools()}
    <Select
      label="Chart of the stumbles"
      value={chart.chart}
      options={stumbles.map(({ chart: id, title }) => ({ value: id, name: title }))}
      onpick={(id) => (picked = id)}
    />
  {/snippet}
  <ul class="flex flex-col gap-1" data-stumbles>
    {#each chart.changes as { change, symbol, bar, times } (change)}
      <li class="flex items-center gap-3">
        <span class="w-16 text-right text-sm text-soft">bar {bar}</span>
        <span class="w-20 text-lg"><ChordSymbol {symbol} /></span>
        <div class="h-4 rounded-sm bg-ink" style:width="{(times / most) * 45}%"></div>
        <span class="w-8 tabular-nums">{times}</span>
        <Button size="small" onclick={() => void drillSeam(chart.chart, change, symbol)}>drill it</Button>
      </li>
    {/each}
  </ul>
</Picture>
