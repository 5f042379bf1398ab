<!--
  The position map drawn: positions down, changes across, one small neck a cell. Filled notes are new, open ones stay
  from the cell to the left. On screen one part at a time, on paper and in files all parts below one another.
-->
<script lang="ts">
  import { firstOf, nth } from '$lib/core/base/list';
  import { prettyDegree } from '$lib/core/theory/typeset';
  import type { Workspace } from '$lib/state/chart/workspace.svelte';
  import { settings } from '$lib/state/settings.svelte';
  import { placeOf, staying, type Area } from '$lib/core/neck/area';
  import type { MapRow } from '$lib/core/neck/position-map';
  import { DEGREES } from '$lib/core/theory/degree';
  import { sayCell } from '$lib/core/neck/shape';
  import ChordText from '../chord/ChordText.svelte';
  import { neckGeometry } from '../neck/geometry';
  import { dragByTouch, LongPress } from '../kit/touch';
  import MiniNeck, { type MiniNote } from '../neck/MiniNeck.svelte';
  import type { MapColumn, MapPart } from './columns';

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

  /** The frets a row of cells shows: as many as its widest shape needs, at least the hand's. */
  const windows = $derived(
    rows.map(({ position, areas }) => {
      // Each area once, however many changes it is played over.
      const frets = [...new Set(areas)].flatMap((area) => area?.cells.map(({ fret }) => fret) ?? []);
      const pressed = [...new Set(frets)].filter((fret) => fret > 0);
      const from = Math.max(1, Math.min(position, ...pressed));
      const to = Math.min(neck.frets, Math.max(from + neck.span, ...pressed));
      return { from, to, hasOpen: frets.includes(0) };
    })
  );
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

  /** What the hand held just before a column, in the same row. */
  function before(row: MapRow, column: MapColumn): Area | null {
    const first = firstOf(column.changes).index;
    return first > 0 ? (row.areas[first - 1] ?? null) : null;
  }

  function notesOf(row: MapRow, column: MapColumn): MiniNote[] {
    const change = firstOf(column.changes);
    const area = row.areas[change.index];
    if (!area) return [];
    const last = before(row, column);
    const kept = last ? staying(area, last) : new Set<string>();
    const tones = new Set<string>(change.chord?.tones ?? []);
    return area.cells.map(({ string, fret, degree }) => {
      const stays = kept.has(placeOf({ string, fret }));
      const isTone = tones.has(degree);
      const isRoot = DEGREES[degree].slot === '1';
      return {
        string,
        fret,
        look: isRoot || isTone ? (stays ? 'open' : 'full') : stays ? 'open-dot' : 'dot',
        ...(isTone ? { label: prettyDegree(degree) } : {})
      };
    });
  }

  /** The row in which the hand is at a change: the one nearest its position. */
  function rowAt(position: number): number {
    const distances = rows.map((row) => Math.abs(row.position - position));
    return distances.indexOf(Math.min(...distances));
  }

  /** Where a row begins; of the row that the hand is nearest to without being in it, where the hand is. */
  function whereIs(row: MapRow): string {
    const { position } = workspace;
    if (rows[rowAt(position)] === row && row.position !== position) return `hand at fret ${position}`;
    return row.position === 0 ? 'at the nut' : `from fret ${row.position}`;
  }

  /** Cells passed over while the pointer is down: row by change. */
  let stroke: ReadonlyMap<number, number> | null = $state.raw(null);
  const handRow = $derived((column: MapColumn) => {
    const { index } = firstOf(column.changes);
    return stroke?.get(index) ?? rowAt(workspace.positions[index] ?? 0);
  });

  const cellX = (c: number) => LABEL + c * columnWidth;
  const cellY = (part: number, r: number) => part * partHeight + HEAD + r * rowHeight;

  let drawing: SVGSVGElement | undefined = $state();

  function hit(event: PointerEvent): { row: number; column: MapColumn; c: number } | null {
    const box = drawing!.getBoundingClientRect();
    const [x, y] = [event.clientX - box.left, event.clientY - box.top];
    const part = Math.floor(y / partHeight);
    const c = Math.floor((x - LABEL) / columnWidth);
    const row = Math.floor((y - part * partHeight - HEAD) / rowHeight);
    const column = parts[part]?.columns[c];
    return column && row >= 0 && row < rows.length && x >= LABEL ? { row, column, c } : null;
  }

  function touch(event: PointerEvent) {
    const found = hit(event);
    if (!found) return;
    const next = new Map(stroke ?? []); // eslint-disable-line svelte/prefer-svelte-reactivity
    for (const { index } of found.column.changes) next.set(index, found.row);
    stroke = next;
  }

  const finger = new LongPress();

  /** With a pointer painting begins at once; a finger rests first, so that a swipe scrolls. */
  function start(event: PointerEvent) {
    if (!isLive || event.button !== 0) return;
    if (event.pointerType === 'touch') finger.begin(event, () => paintFrom(event));
    else {
      (event.currentTarget as Element).setPointerCapture(event.pointerId);
      paintFrom(event);
    }
  }

  function paintFrom(event: PointerEvent) {
    const found = hit(event);
    if (!found) return;
    workspace.select(firstOf(found.column.changes).index);
    if (isLaying) onlayover(found.row, found.column);
    else touch(event);
  }

  function move(event: PointerEvent) {
    finger.move(event);
    if (stroke) touch(event);
  }

  function cancel() {
    finger.end();
    stroke = null;
  }

  function finish(event: PointerEvent) {
    if (finger.end()) paintFrom(event);
    if (!stroke) return;
    const painted = [...stroke].map(([change, row]) => [change, nth(rows, row).position] as const);
    stroke = null;
    workspace.hand.paint(new Map(painted));
  }

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

  function spoken(row: MapRow, column: MapColumn): string {
    const { symbol, index, bar } = firstOf(column.changes);
    const area = row.areas[index];
    if (!area) return `${symbol}, bar ${bar}: nothing to play`;
    return `${symbol}, bar ${bar}, ${area.name.words}, fret ${area.anchor}: ${area.cells.map(sayCell).join('; ')}`;
  }

  /** Bars a column stands for, as "bar 3" or "3, 11". */
  function bars({ changes }: MapColumn): string {
    const all = [...new Set(changes.map(({ bar }) => bar))];
    return all.length > 4 ? `${all.slice(0, 3).join(', ')} …` : all.join(', ');
  }

  /** A name cut to the width of its column. */
  function fit(name: string): string {
    const room = Math.floor((columnWidth - 2 * PAD) / 5.3);
    return name.length > room ? `${name.slice(0, room - 1)}…` : name;
  }
</script>

<svg
  bind:this={drawing}
  {@attach dragByTouch(() => stroke !== null)}
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
        class="fill-soft">{bars(column)}</text
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
          onpointerdown={isLive ? start : undefined}
          onpointermove={isLive ? move : undefined}
          onpointerup={isLive ? finish : undefined}
          onpointercancel={isLive ? cancel : undefined}
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
