/** The chords of one bar in time, and the cells that write them: docs/music-rules.md, Writing on bars. */
import type { Beats } from '../../base/units';
import type { Cell, Meter } from '../model';

/** A chord in its bar. */
export interface BarChord {
  readonly symbol: string;
  /** Beats of the bar's own meter from its bar line. */
  readonly beat: number;
  readonly beats: Beats;
  /** Which cell of the bar it stands in. */
  readonly cell: number;
}

/** Beats from one cell to the next: an even share of the bar, or a beat where a stroke counts beats. */
function stepOf(cells: readonly Cell[], { beats }: Meter): number {
  const counts = cells.some((cell) => cell.kind === 'hold' && cell.mark === '/');
  return counts && cells.length <= beats ? 1 : beats / Math.max(1, cells.length);
}

/** The chords that begin in a bar, in their order. A bar that only goes on, or repeats others, has none. */
export function chordsIn(cells: readonly Cell[], meter: Meter): BarChord[] {
  const step = stepOf(cells, meter);
  const starts = cells.flatMap((cell, i) =>
    cell.kind === 'chord' ? [{ symbol: cell.symbol, beat: i * step, cell: i }] : []
  );
  return starts.map((chord, i) => ({ ...chord, beats: (starts[i + 1]?.beat ?? meter.beats) - chord.beat }));
}

/** What has to be known of a chord to write it. */
export type Placed = Pick<BarChord, 'symbol' | 'beat'>;

/** Cells of a bar at most: thirty-seconds of a bar of 4/4. */
const MOST_CELLS = 64;
/** How far a place may be off and still be it. */
const NEAR = 1e-6;

/**
 * The fewest cells that put chords where they begin: one a bar, halves, beats, then parts of a beat. Chords in any order; of two at one
 * place the later one in the list counts. A bar without chords is empty: the chord before goes on.
 */
export function cellsFor(chords: readonly Placed[], { beats }: Meter): Cell[] {
  if (chords.length === 0) return [];
  const isWhole = (value: number) => Math.abs(value - Math.round(value)) < NEAR;
  const counts = Array.from({ length: MOST_CELLS }, (_, i) => i + 1);
  const count =
    counts.find((n) => chords.every(({ beat }) => isWhole((beat * n) / beats))) ??
    Math.min(MOST_CELLS, beats * 4);
  const cells = Array.from({ length: count }, (): Cell => ({ kind: 'hold', mark: '.' }));
  for (const { symbol, beat } of chords)
    cells[Math.min(count - 1, Math.round((beat * count) / beats))] = { kind: 'chord', symbol };
  return cells;
}

/** Where a further chord goes after another one: it takes the second half of its time, in whole beats where there are as many. */
export function splitOf({ beat, beats }: Pick<BarChord, 'beat' | 'beats'>): number {
  const half = beats >= 2 ? Math.ceil(beats / 2) : beats / 2;
  return beat + half;
}
