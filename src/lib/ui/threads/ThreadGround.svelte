<!-- What Threads stands on: bars, the column of the moment and the one that comes, chord symbols, changes that are left alone. -->
<script lang="ts">
  import type { PlayedBar } from '$lib/core/chart/unroll';
  import type { AnalysedChange } from '$lib/core/harmony/analysis';
  import ColumnChords from './ColumnChords.svelte';
  import { HEAD, type Column, type ThreadsLayout } from './layout';
  import SelectedColumn from './SelectedColumn.svelte';

  interface Props {
    layout: ThreadsLayout;
    height: number;
    allBars: readonly PlayedBar[];
    /** The bars and columns in sight. */
    bars: readonly PlayedBar[];
    columns: readonly Column[];
    changes: readonly AnalysedChange[];
    now: Column | undefined;
    next: Column | undefined;
    /** Whether a change is left alone by the target line. */
    isResting: (change: number) => boolean;
  }
  let { layout, height, allBars, bars, columns, changes, now, next, isResting }: Props = $props();
</script>

{#each bars as bar (bar.number)}
  {@const x = layout.time(bar.start)}
  {@const opens = bar.section !== '' && bar.section !== allBars[bar.number - 2]?.section}
  <line
    x1={x}
    x2={x}
    y1={opens ? 0 : 14}
    y2={height}
    class={opens ? 'stroke-soft' : 'stroke-line'}
    stroke-width={opens ? 1.5 : 1}
  />
  <text x={x + 5} y="11" font-size="10" class="fill-soft">
    {bar.number}{#if opens}<tspan class="font-bold">&#160;&#160;{bar.section}</tspan>{/if}
  </text>
{/each}

<!-- The column of the moment, and the one that comes -->
<SelectedColumn column={now} {height} />
{#if next}<rect x={next.x} y="15" width={next.width} height="2" class="fill-next" />{/if}
<ColumnChords {columns} {changes} />

{#each columns as column (column.index)}
  {#if isResting(column.index)}
    <g data-resting={column.index}>
      <rect
        x={column.x}
        y={HEAD}
        width={column.width}
        height={height - HEAD}
        class="fill-paper"
        fill-opacity="0.75"
      />
      <text x={column.x + column.width - 8} y={height - 8} text-anchor="end" font-size="11" class="fill-soft"
        >resting</text
      >
    </g>
  {/if}
{/each}
