/** A chart text from what a file says: bars in time and the chords in them. */
import { counted } from '../theory/words';
import { writeDirective, writeGridArguments } from '../chart/directives';
import type { Meter } from '../chart/model';
import { MAX_TEMPO, MIN_TEMPO } from '../chart/model';
import { NotReadable } from './not-readable';
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
}

/** Cells that a bar is cut into at most, for each of its beats. */
const FINEST = 2;
const BARS_IN_A_ROW = 4;
/** Beats of a bar at most: what is longer was never written as one. */
const LONGEST_BAR = 128;
const SILENT = 'N.C.';

/** Writes the chart; null where there is no chord. Throws `NotReadable` where a bar is endless. Chords off half a beat are moved to it, and that is told. */
export function chartOf(
  { title, key, tempo, bars, chords }: Found,
  ticksPerBeat: number
): { readonly chart: string | null; readonly left: readonly LeftOut[] } {
  const first = bars[0];
  if (!first || chords.length === 0) return { chart: null, left: [] };
  if (!bars.every(({ length }) => length > 0 && length <= LONGEST_BAR * ticksPerBeat))
    throw new NotReadable(`A bar of this file has no length, or more than ${LONGEST_BAR} beats.`);
  let moved = 0;
  let sounding = SILENT;
  let at = 0;
  const cells = bars.map((bar) => {
    const end = bar.start + bar.length;
    const steps = Math.max(1, Math.round((bar.length / ticksPerBeat) * FINEST));
    const step = bar.length / steps;
    const placed = new Map<number, string>();
    while (at < chords.length && chords[at]!.start < end) {
      const { start, symbol } = chords[at]!;
      const cell = Math.min(steps - 1, Math.max(0, Math.round((start - bar.start) / step)));
      if (Math.abs(bar.start + cell * step - start) > 1) moved++;
      placed.set(cell, symbol);
      at++;
    }
    if (!placed.has(0)) placed.set(0, sounding);
    sounding = [...placed].sort(([a], [b]) => a - b).at(-1)![1];
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
  let row: string[] = [];
  let isOpen = false;
  const flush = () => {
    if (row.length) lines.push(`| ${row.join(' | ')} |`);
    row = [];
  };
  bars.forEach((bar, i) => {
    const before = bars[i - 1];
    const changesMeter =
      before && (before.meter.beats !== bar.meter.beats || before.meter.unit !== bar.meter.unit);
    if (!isOpen || bar.section || changesMeter) {
      flush();
      if (isOpen) lines.push('{end_of_grid}');
      if (changesMeter) declare('time', `${bar.meter.beats}/${bar.meter.unit}`);
      const said = writeGridArguments({ label: bar.section ?? '', rest: '' });
      lines.push(said ? `{start_of_grid ${said}}` : '{start_of_grid}');
      isOpen = true;
    }
    row.push(cells[i]!);
    if (row.length === BARS_IN_A_ROW) flush();
  });
  flush();
  lines.push('{end_of_grid}');
  const left = moved
    ? [
        {
          text: 'chords',
          why: `${counted(moved, 'chord')} moved to the nearest half beat`
        }
      ]
    : [];
  return { chart: `${lines.join('\n')}\n`, left };
}

/** The largest number of steps that divides a bar and every place in it. */
function largestSize(steps: number, places: readonly number[]): number {
  for (let size = steps; size > 1; size--) {
    if (steps % size === 0 && places.every((place) => place % size === 0)) return size;
  }
  return 1;
}
