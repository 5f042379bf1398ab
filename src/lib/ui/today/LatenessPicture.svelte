<!-- How late the changes are met in takes: beside the moment of change, early to its left, late to its right. -->
<script lang="ts">
  import type { Pictures } from '$lib/api/practice';
  import { firstOf } from '$lib/core/base/list';
  import ChordSymbol from '../chord/ChordSymbol.svelte';
  import Button from '../kit/Button.svelte';
  import Select from '../kit/Select.svelte';
  import { lateWords } from '../takes/words';
  import Picture from './Picture.svelte';
  import { drillSeam } from './seam';

  let { lateness }: { lateness: Pictures['lateness'] } = $props();
  let picked = $state('');
  const chart = $derived(lateness.find((one) => one.chart === picked) ?? firstOf(lateness));
  /** Beats to each side, and pixels of the drawing. */
  const MOST = 1;
  const [WIDTH, ROW] = [300, 28];
  const x = (late: number) => WIDTH / 2 + (Math.max(-MOST, Math.min(MOST, late)) / MOST) * (WIDTH / 2 - 12);
</script>

<Picture
  question="At which change are you late?"
  columns={['chart', 'bar', 'chord', 'beats late', 'times']}
  rows={lateness.flatMap(({ title, changes }) =>
    changes.map(({ bar, symbol, late, times }) => [title, bar, symbol, late.toFixed(2), times])
  )}
>
  {#snippet tools()}
    <Select
      label="Chart of the lateness"
      value={chart.chart}
      options={lateness.map(({ chart: id, title }) => ({ value: id, name: title }))}
      onpick={(id) => (picked = id)}
    />
  {/snippet}
  <ul class="flex min-w-fit flex-col" data-lateness>
    {#each chart.changes as { change, symbol, bar, late, times } (change)}
      <li class="flex items-center gap-3">
        <span class="w-16 text-right text-sm text-soft">bar {bar}</span>
        <span class="w-20 text-lg"><ChordSymbol {symbol} /></span>
        <svg width={WIDTH} height={ROW} class="shrink-0" aria-hidden="true">
          <line x1={WIDTH / 2} x2={WIDTH / 2} y1="0" y2={ROW} class="stroke-ink" stroke-width="2" />
          <line
            x1={WIDTH / 2}
            x2={x(late)}
            y1={ROW / 2}
            y2={ROW / 2}
            class="stroke-target"
            stroke-width="4"
            stroke-linecap="round"
          />
          <circle cx={x(late)} cy={ROW / 2} r="7" class="fill-target" />
        </svg>
        <span class="w-32 whitespace-nowrap tabular-nums">{lateWords(late)}</span>
        <span class="w-10 text-sm text-soft tabular-nums">{times} ×</span>
        <Button size="small" onclick={() => void drillSeam(chart.chart, change, symbol)}>drill it</Button>
      </li>
    {/each}
  </ul>
</Picture>
