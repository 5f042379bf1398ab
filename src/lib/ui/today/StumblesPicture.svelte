<!-- Where the player stumbled: at which change does it go wrong? -->
<script lang="ts">
  import { max } from 'd3-array';
  import { goto } from '$app/navigation';
  import type { Pictures } from '$lib/api/practice';
  import { askFor } from '$lib/state/assigned';
  import ChordSymbol from '../chord/ChordSymbol.svelte';
  import Button from '../kit/Button.svelte';
  import Select from '../kit/Select.svelte';
  import Picture from './Picture.svelte';

  let { stumbles }: { stumbles: Pictures['stumbles'] } = $props();
  let picked = $state('');
  const chart = $derived(stumbles.find((one) => one.chart === picked) ?? stumbles[0]!);
  const most = $derived(max(chart.changes, ({ times }) => times) ?? 1);

  async function drill(change: number, symbol: string) {
    askFor(chart.chart, {
      item: null,
      name: `The seam at ${symbol}`,
      what: 'targets',
      // The change before it leads into it.
      over: change > 0 ? { kind: 'pair', change: change - 1 } : { kind: 'change', change },
      area: null,
      key: null,
      start: null,
      tempo: null
    });
    await goto(`/charts/${chart.chart}?view=rehearse`);
  }
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
        <Button size="small" onclick={() => void drill(change, symbol)}>drill it</Button>
      </li>
    {/each}
  </ul>
</Picture>
