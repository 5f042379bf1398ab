<!--
  The position map drawn: positions down, changes across, one small neck a cell. Filled notes are new, open ones stay
  from the cell to the left. On screen one part at a time, on paper and in files all parts below one another.
-->
<script lang="ts">
  import { firstOf, nth } from '$lib/core/base/list';
  import type { Workspace } from '$lib/state/chart/workspace.svelte';
  import { settings } from '$lib/state/settings.svelte';
  import type { MapRow } from '$lib/core/neck/position-map';
  import ChordText from '../chord/ChordText.svelte';
  import { neckGeometry } from '../neck/geometry';
  import { dragByTouch } from '../kit/touch';
  import MiniNeck from '../neck/MiniNeck.svelte';
  import { barsOf, fretsOf, notesOf, rowAt, spoken } from './cells';
  import type { MapColumn, MapPart } from './columns';
  import { MapPainting, type HitCell } from './painting.svelte';

  interface Props {
    workspace: Workspace;
    parts: readonly MapPart[];
    columnWidth: number;
    stringGap?: number;
    /** Leaves out the rows that only repeat lower ones an octave up. */
    isOneOctave?: boolean;
    /** Chart changes answer to pointer and keys. */
    isLive?: boolean;
    onlayover?: (row: number, column: MapColumn) => void;
    /** Clicks lay a cell over its neighbour instead of painting. */
    isLaying?: boolean;
  }
  let {
    workspace,
    parts,
    columnWidth,
    stringGap = 11,
    isOneOctave = false,
    isLive = false,
    onlayover = () => undefined,
    isLaying = false
  }: Props = $props();

  const HEAD = 40;
  const LABEL = 88;
  const PAD = 5;
  const neck = $derived(workspace.neck);
  const rows = $derived(
    isOneOctave
      ? workspace.map.filter(({ position }) => position < firstOf(workspace.map).position + 12)
      : workspace.map
  );
  const rowHeight = $derived((neck.strings.length - 1) * stringGap + 33);
  const partHeight = $derived(HEAD + rows.length * rowHeight + 8);
  const width = $derived(LABEL + Math.max(1, ...parts.map((part) => part.columns.length)) * columnWidth + 2);
  const height = $derived(parts.length * partHeight);

  const windows = $derived(rows.map((row) => fretsOf(row, neck)));
  const geometries = $derived(
    windows.map(({ from, to, hasOpen }) =>
      neckGeometry({
        width: columnWidth - 2 * PAD,
        strings: neck.strings.length,
        from,
        to,
        stringGap,
        top: 23,
        bottom: 8,
        open: hasOpen ? 13 : 5,
        leftHanded: settings.now.leftHanded
      })
    )
  );

  /** Where a row begins; of the row that the hand is nearest to without being in it, where the hand is. */
  function whereIs(row: MapRow): string {
    const { position } = workspace;
    if (rows[rowAt(rows, position)] === row && row.position !== position) return `hand at fret ${position}`;
    return row.position === 0 ? 'at the nut' : `from fret ${row.position}`;
  }

  const handRow = $derived((column: MapColumn) => {
    const { index } = firstOf(column.changes);
    return painting.stroke?.get(index) ?? rowAt(rows, workspace.positions[index] ?? 0);
  });

  const cellX = (c: number) => LABEL + c * columnWidth;
  const cellY = (part: number, r: number) => part * partHeight + HEAD + r * rowHeight;

  let drawing: SVGSVGElement | undefined = $state();

  function hit(event: PointerEvent): HitCell | null {
    const box = drawing!.getBoundingClientRect();
    const [x, y] = [event.clientX - box.left, event.clientY - box.top];
    const part = Math.floor(y / partHeight);
    const row = Math.floor((y - part * partHeight - HEAD) / rowHeight);
    const column = parts[part]?.columns[Math.floor((x - LABEL) / columnWidth)];
    return column && row >= 0 && row < rows.length && x >= LABEL ? { row, column } : null;
  }

  const painting = new MapPainting({
    hit,
    pressed({ row, column }) {
      workspace.select(firstOf(column.changes).index);
      if (isLaying) onlayover(row, column);
      return isLaying;
    },
    painted: (stroke) =>
      workspace.hand.paint(
        new Map([...stroke].map(([change, row]) => [change, nth(rows, row).position] as const))
      )
  });

  function press(event: KeyboardEvent, r: number, column: MapColumn, c: number) {
    const move = { ArrowUp: [-1, 0], ArrowDown: [1, 0], ArrowLeft: [0, -1], ArrowRight: [0, 1] }[event.key];
    const svg = (event.currentTarget as Element).closest('svg')!;
    if (move) {
      const other = svg.querySelector<SVGGElement>(
        `[data-map-cell="${r + firstOf(move)}:${c + nth(move, 1)}"]`
      );
      other?.focus();
    } else if (event.key === 'Enter' || event.key === ' ') {
      workspace.hand.paint(new Map(column.changes.map(({ index }) => [index, nth(rows, r).position])));
    } else if (event.key.toLowerCase() === 'o') {
      onlayover(r, column);
    } else return;
    event.preventDefault();
  }

  /** A name cut to the width of its column. */
  function fit(name: string): string {
    const room = Math.floor((columnWidth - 2 * PAD) / 5.3);
    return name.length > room ? `${name.slice(0, room - 1)}…` : name;
  }
</script>

<svg
  bind:this={drawing}
  {@attach dragByTouch(() => painting.stroke !== null)}
  {width}
  {height}
  viewBox="0 0 {width} {height}"
  class="block select-none"
  role="group"
  aria-label="Position map"
  data-map
>
  {#each parts as part, p (part.title + p)}
    {#if parts.length > 1}
      <text x="0" y={p * partHeight + 14} font-size="11.5" class="fill-soft">{part.title}</text>
    {/if}
    {#each part.columns as column, c (firstOf(column.changes).index)}
      {@const change = firstOf(column.changes)}
      {@const choice = workspace.chosen[change.index]}
      <ChordText
        symbol={change.symbol}
        x={cellX(c) + PAD}
        y={p * partHeight + 18}
        size={17}
        class={change.index === workspace.selected ? 'fill-target' : 'fill-ink'}
      />
      <text
        x={cellX(c) + columnWidth - PAD}
        y={p * partHeight + 14}
        text-anchor="end"
        font-size="10.5"
        class="fill-soft">{barsOf(column)}</text
      >
      <text x={cellX(c) + PAD} y={p * partHeight + 33} font-size="10.5" class="fill-soft"
        >{choice ? fit(settings.collection(choice)) : change.chord ? '' : 'rest'}</text
      >
    {/each}
    {#each rows as row, r (row.position)}
      {@const geometry = nth(geometries, r)}
      {@const y = cellY(p, r)}
      {#if isLive}
        <g
          role="button"
          tabindex="0"
          aria-label="Play the whole chart in {row.name.words}, fret {row.position}"
          data-map-row={row.position}
          onclick={() => workspace.hand.settle(row.position)}
          onkeydown={(event) => {
            if (event.key !== 'Enter' && event.key !== ' ') return;
            event.preventDefault();
            workspace.hand.settle(row.position);
          }}
        >
          <rect
            x="1"
            y={y + 3}
            width={LABEL - 8}
            height={rowHeight - 7}
            rx="7"
            class="row-head fill-surface"
          />
        </g>
        <g class="pointer-events-none" aria-hidden="true">{@render label(row, y)}</g>
      {:else}
        {@render label(row, y)}
      {/if}
      {#each part.columns as column, c (firstOf(column.changes).index)}
        {@const area = row.areas[firstOf(column.changes).index]}
        {@const isHand = handRow(column) === r}
        <!-- svelte-ignore a11y_no_noninteractive_tabindex -->
        <g
          role={isLive ? 'button' : 'img'}
          tabindex={isLive ? (r + c === 0 ? 0 : -1) : undefined}
          aria-label={spoken(row, column)}
          aria-pressed={isLive ? isHand : undefined}
          data-map-cell="{r}:{c}"
          data-hand={isHand ? '' : undefined}
          class="cell"
          onpointerdown={isLive ? (event) => painting.start(event) : undefined}
          onpointermove={isLive ? (event) => painting.move(event) : undefined}
          onpointerup={isLive ? (event) => painting.finish(event) : undefined}
          onpointercancel={isLive ? () => painting.cancel() : undefined}
          oncontextmenu={isLive ? (event) => event.preventDefault() : undefined}
          onkeydown={isLive ? (event) => press(event, r, column, c) : undefined}
        >
          <rect
            x={cellX(c) + 1}
            y={y + 1}
            width={columnWidth - 2}
            height={rowHeight - 3}
            rx="6"
            class="{isHand ? 'fill-lit stroke-target' : 'fill-surface stroke-line'} plate"
            stroke-width={isHand ? 2 : 1}
          />
        </g>
        <g class="pointer-events-none" aria-hidden="true" data-map-shape="{r}:{c}">
          {#if area}
            <text x={cellX(c) + PAD} y={y + 14} font-size="10.5" class="fill-ink"
              ><tspan class={area.name.words === row.name.words ? 'fill-soft' : 'font-bold'}
                >{area.name.words}</tspan
              >{area.name.kind === 'position' ? '' : ` · ${area.anchor}`}</text
            >
            <g transform="translate({cellX(c) + PAD} {y})" data-map-notes>
              <MiniNeck
                {geometry}
                strings={neck.strings.length}
                from={nth(windows, r).from}
                to={nth(windows, r).to}
                notes={notesOf(row, column)}
                radius={stringGap * 0.5}
              />
            </g>
          {/if}
        </g>
      {/each}
    {/each}
  {/each}
</svg>

{#snippet label(row: MapRow, y: number)}
  <text x="8" y={y + 24} font-size="13" class="fill-ink font-bold">{row.name.words}</text>
  <text x="8" y={y + 40} font-size="11.5" class="fill-soft">{whereIs(row)}</text>
{/snippet}

<style>
  .row-head:hover,
  .cell:hover .plate {
    stroke: var(--ink);
  }

  g[role='button']:focus-visible {
    outline: none;
  }

  g[role='button']:focus-visible rect {
    stroke: var(--next);
    stroke-width: 2.5;
  }
</style>
