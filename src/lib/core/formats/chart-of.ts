/** A chart text from what a file says: bars in time and the chords in them. */
import { lastOf, nth } from '../base/list';
import { counted } from '../theory/words';
import { writeDirective, writeGridArguments } from '../chart/directives';
import type { Meter } from '../chart/model';
import { MAX_TEMPO, MIN_TEMPO } from '../chart/model';
import { NotReadable } from './not-readable';
import { sectionsOf } from './heard/sections';
import type { LeftOut } from './text/import';

export interface FoundChord {
  /** Ticks from the start. */
  readonly start: number;
  readonly symbol: string;
}

export interface FoundBar {
  /** In ticks. */
  readonly start: number;
  readonly length: number;
  readonly meter: Meter;
  /** A mark of a part that begins here. */
  readonly section?: string;
}

export interface Found {
  readonly title?: string | undefined;
  readonly key?: string | undefined;
  readonly tempo?: number | undefined;
  readonly bars: readonly FoundBar[];
  readonly chords: readonly FoundChord[];
  /** Said at the head of the chart, for whoever reads it. */
  readonly comment?: string | undefined;
  /** Stretches that come again become sections, where the bars have none. */
  readonly folds?: boolean;
}

/** Cells that a bar is cut into at most, for each of its beats. */
const FINEST = 2;
const BARS_IN_A_ROW = 4;
/** Beats of a bar at most: what is longer was never written as one. */
const LONGEST_BAR = 128;
const SILENT = 'N.C.';

/** Writes the chart; null where there is no chord. Throws `NotReadable` where a bar is endless. Chords off half a beat are moved to it, and that is told. */
export function chartOf(
  { title, key, tempo, bars, chords, comment, folds }: Found,
  ticksPerBeat: number
): { readonly chart: string | null; readonly left: readonly LeftOut[] } {
  const first = bars[0];
  if (!first || chords.length === 0) return { chart: null, left: [] };
  if (!bars.every(({ length }) => length > 0 && length <= LONGEST_BAR * ticksPerBeat))
    throw new NotReadable(`A bar of this file has no length, or more than ${LONGEST_BAR} beats.`);
  let moved = 0;
  const crowded: LeftOut[] = [];
  let sounding = SILENT;
  let at = 0;
  const cells = bars.map((bar) => {
    const end = bar.start + bar.length;
    const steps = Math.max(1, Math.round((bar.length / ticksPerBeat) * FINEST));
    const step = bar.length / steps;
    const placed = new Map<number, string>();
    while (at < chords.length && nth(chords, at).start < end) {
      const { start, symbol } = nth(chords, at);
      const cell = Math.min(steps - 1, Math.max(0, Math.round((start - bar.start) / step)));
      if (Math.abs(bar.start + cell * step - start) > 1) moved++;
      const other = placed.get(cell);
      if (other !== undefined && other !== symbol)
        crowded.push({ text: other, why: `stands where ${symbol} does; one chord has room there` });
      placed.set(cell, symbol);
      at++;
    }
    if (!placed.has(0)) placed.set(0, sounding);
    sounding = lastOf([...placed].sort(([a], [b]) => a - b))[1];
    // As few cells as say it: one chord is one cell, halves are two.
    const size = largestSize(steps, [...placed.keys()]);
    return Array.from({ length: steps / size }, (_, i) => placed.get(i * size) ?? '.').join(' ');
  });
  const lines: string[] = [];
  const declare = (name: string, value: string) => lines.push(writeDirective({ name, value }));
  if (title) declare('title', title.replaceAll(/[\s{}]+/g, ' ').trim());
  if (key) declare('key', key);
  declare('time', `${first.meter.beats}/${first.meter.unit}`);
  if (tempo) declare('tempo', String(Math.round(Math.min(MAX_TEMPO, Math.max(MIN_TEMPO, tempo)))));
  if (comment) declare('comment', comment);
  for (const block of blocksOf(bars, cells, folds ?? false)) {
    if (block.meter) declare('time', `${block.meter.beats}/${block.meter.unit}`);
    const said = writeGridArguments({ label: block.label, rest: '' });
    lines.push(said ? `{start_of_grid ${said}}` : '{start_of_grid}');
    const rows = Math.ceil((block.to - block.from) / BARS_IN_A_ROW);
    for (let i = 0; i < rows; i++) {
      const from = block.from + i * BARS_IN_A_ROW;
      const row = cells.slice(from, Math.min(block.to, from + BARS_IN_A_ROW)).join(' | ');
      const opens = block.isTwice && i === 0;
      lines.push(`${opens ? '|:' : '|'} ${row} ${block.isTwice && i === rows - 1 ? ':|' : '|'}`);
    }
    lines.push('{end_of_grid}');
  }
  const left = [
    ...(moved ? [{ text: '', why: `${counted(moved, 'chord')} moved to the nearest half beat` }] : []),
    ...crowded,
    ...chords.slice(at).map(({ symbol }) => ({ text: symbol, why: 'stands behind the last bar' }))
  ];
  return { chart: `${lines.join('\n')}\n`, left };
}

/** Bars that stand in one grid. */
interface Block {
  readonly from: number;
  readonly to: number;
  readonly label: string;
  readonly isTwice: boolean;
  /** Where another meter begins with it. */
  readonly meter?: Meter;
}

/** The grids of a chart: one begins at every mark of a part and at every change of meter. */
function blocksOf(bars: readonly FoundBar[], cells: readonly string[], folds: boolean): Block[] {
  const changesMeter = (i: number) => i > 0 && !isSameMeter(nth(bars, i - 1).meter, nth(bars, i).meter);
  const contents = cells.map((cell, i) => `${nth(bars, i).meter.beats}/${nth(bars, i).meter.unit} ${cell}`);
  const isMarked = bars.some(({ section }) => section);
  const sections: Omit<Block, 'meter'>[] = folds && !isMarked ? sectionsOf(contents) : [];
  const whole = sections.length ? sections : [{ from: 0, to: bars.length, label: '', isTwice: false }];
  return whole.flatMap(({ from, to, label, isTwice }): Block[] => {
    const stops = bars
      .slice(from, to)
      .flatMap(({ section }, i) => (i > 0 && (section || changesMeter(from + i)) ? [from + i] : []));
    // Signs of a repeat do not reach over a change of meter: what is played twice is written twice.
    const rounds =
      isTwice && (stops.length || !isSameMeter(nth(bars, from).meter, nth(bars, to - 1).meter)) ? 2 : 1;
    const parts = [from, ...stops].map((start, i) => ({
      from: start,
      to: stops[i] ?? to,
      label: nth(bars, start).section ?? (i === 0 ? label : ''),
      isTwice: isTwice && rounds === 1,
      ...(changesMeter(start) ? { meter: nth(bars, start).meter } : {})
    }));
    if (rounds === 1) return parts;
    const again = parts.map((part, i) =>
      i === 0 && !isSameMeter(nth(bars, to - 1).meter, nth(bars, from).meter)
        ? { ...part, meter: nth(bars, from).meter }
        : part
    );
    return [...parts, ...again];
  });
}

const isSameMeter = (a: Meter, b: Meter) => a.beats === b.beats && a.unit === b.unit;

/** The largest number of steps that divides a bar and every place in it. */
function largestSize(steps: number, places: readonly number[]): number {
  for (let size = steps; size > 1; size--) {
    if (steps % size === 0 && places.every((place) => place % size === 0)) return size;
  }
  return 1;
}
