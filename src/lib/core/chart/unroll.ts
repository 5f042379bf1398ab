/** The form unrolled: repeats and endings played out into changes in time. */
import { lastOf, nth, sure } from '../base/list';
import type { Beats } from '../base/units';
import { readChord, type ChordProblem } from '../theory/chord-reader';
import { type Chord } from '../theory/chord';
import { declarationOf } from './directives';
import { leftWord, rightWord, type MarginWord } from './margin';
import { playOrder } from './play-order';
import { DEFAULT_METER, type Cell, type Chart, type ChartProblem, type Meter, type Place } from './model';
import { chartHead, readMeter, type CellPlaces } from './read';

/** One chord occurrence in time. */
export interface Change {
  readonly index: number;
  readonly section: string;
  /** Bar of the unrolled form, counted from 1. */
  readonly bar: number;
  /** Beat in that bar, counted from 1. */
  readonly beat: number;
  /** Length in beats. */
  readonly beats: Beats;
  /** Beats from the start of the form. */
  readonly start: Beats;
  readonly symbol: string;
  /** Null where no chord sounds (N.C.) or the symbol was not understood. */
  readonly chord: Chord | null;
  readonly problem?: ChordProblem;
  /** Where the symbol stands in the text. */
  readonly place?: Place;
}

/** What has a chord that sounds and was understood. */
export type Chorded<T extends { readonly chord: Chord | null }> = T & { readonly chord: Chord };
/** Whether a chord sounds at a change and was understood. */
export const hasChord = <T extends { readonly chord: Chord | null }>(change: T): change is Chorded<T> =>
  change.chord !== null;

/** The chord of a change that is known to have one. Throws an Error that names the change where it has none. */
export const chordOf = (change: Pick<Change, 'chord' | 'symbol' | 'bar'>): Chord =>
  sure(change.chord, `the chord of ${change.symbol} in bar ${change.bar}`);

/** A bar of the unrolled form. */
export interface PlayedBar {
  /** Counted from 1. */
  readonly number: number;
  readonly section: string;
  readonly start: Beats;
  /** Its length in beats of the chart's meter: a bar of 7/8 in a chart in 4/4 has three and a half. */
  readonly beats: Beats;
  readonly meter: Meter;
  /** Index of the written bar it comes from. */
  readonly written: number;
}

export interface Form {
  readonly changes: readonly Change[];
  readonly bars: readonly PlayedBar[];
  /** Length in beats. */
  readonly beats: Beats;
  /** Beats before the first bar in which melody and lines may begin; 0 where the chart declares none. */
  readonly pickup: number;
  readonly problems: readonly ChartProblem[];
  /** The chart has more changes than the limit; the form stops there. */
  readonly tooLong: boolean;
}

export const MAX_CHANGES = 2000;
/** A form of nothing but held bars has few changes; this bounds it all the same. */
const MAX_BARS = 4 * MAX_CHANGES;

interface WrittenBar {
  readonly section: string;
  readonly meter: Meter;
  /** Shared with the bars that repeat them. */
  readonly cells: readonly (Cell & { place?: Place })[];
  readonly place: Place;
  /** A repeated bar is marked where its sign stands, not where the chord was typed first. */
  readonly isRepeat: boolean;
  repeatStart: boolean;
  repeatEnd: boolean;
  ending: readonly number[];
  margin: MarginWord[];
}

/** Unrolls a chart. Form problems (an unclosed repeat, a `%` with nothing before it) are told, never thrown. */
export function unroll(chart: Chart, places?: CellPlaces): Form {
  const problems: ChartProblem[] = [];
  const written = writtenBars(chart, places, problems);
  const order = playOrder(written, MAX_BARS, problems);
  const { meter, pickup } = chartHead(chart);
  const laidOut = layOut(written, order.bars, meter.unit, problems);
  return { ...laidOut, pickup, problems, tooLong: laidOut.tooLong || order.tooLong };
}

/** What leads through the form at a written bar; `PlayedBar.written` counts these. */
export type FormMarks = Pick<WrittenBar, 'repeatStart' | 'repeatEnd' | 'ending' | 'margin'>;

/** The marks of every bar as it is written, `%` and `%%` filled in. */
export const formMarks = (chart: Chart): readonly FormMarks[] => writtenBars(chart, undefined, []);

/** All bars as written, with `%` and `%%` filled in and meters and sections known. */
function writtenBars(chart: Chart, places: CellPlaces | undefined, problems: ChartProblem[]): WrittenBar[] {
  const bars: WrittenBar[] = [];
  let section = '';
  let meter = DEFAULT_METER;
  let pendingStart = false;
  let pendingEnding: readonly number[] = [];
  /** After `%%` an empty bar belongs to the sign, which stands over two bars. */
  let skipEmpty = false;
  chart.lines.forEach((line, index) => {
    if (line.kind === 'directive') {
      const { name, value } = declarationOf(line);
      if (name === 'time') meter = readMeter(value) ?? meter;
    }
    if (line.kind === 'grid-start') section = line.label;
    if (line.kind !== 'bars') return;
    const first = bars.length;
    line.barLines.forEach((barLine, i) => {
      const last = bars.at(-1);
      if (barLine.repeatEnd && last) last.repeatEnd = true;
      if (barLine.repeatStart) pendingStart = true;
      if (barLine.ending.length) pendingEnding = barLine.ending;
      const bar = line.bars[i];
      // No form is longer than this, whatever is written behind.
      if (!bar || bars.length > MAX_BARS) return;
      const spots = places?.get(index)?.[i];
      const place = spots?.[0] ?? { line: index + 1, column: 1, length: 1 };
      if (bar.cells.length === 0 && skipEmpty) {
        skipEmpty = false;
        return;
      }
      const repeat = bar.cells.find((cell) => cell.kind === 'repeat-bars');
      skipEmpty = repeat?.count === 2;
      const cells = bar.cells.map((cell, c) => ({ ...cell, ...(spots?.[c] ? { place: spots[c] } : {}) }));
      const contents = repeat ? repeatedBars(bars, repeat.count, place, problems) : [cells];
      for (const [n, content] of contents.entries()) {
        bars.push({
          section,
          meter,
          place,
          cells: content,
          isRepeat: !!repeat,
          repeatStart: n === 0 && pendingStart,
          repeatEnd: false,
          ending: n === 0 ? pendingEnding : [],
          margin: []
        });
      }
      pendingStart = false;
      pendingEnding = [];
    });
    const [left, right] = [leftWord(line.left), rightWord(line.right)];
    if (left) bars[first]?.margin.push(left);
    if (right && bars.length > first) lastOf(bars).margin.push(right);
  });
  return bars;
}

function repeatedBars(
  bars: readonly WrittenBar[],
  count: 1 | 2,
  place: Place,
  problems: ChartProblem[]
): WrittenBar['cells'][] {
  if (bars.length < count) {
    problems.push({
      code: 'nothing-to-repeat',
      message:
        count === 1
          ? 'There is no bar before this % to repeat.'
          : 'There are no two bars before this %% to repeat.',
      place
    });
    return Array.from({ length: count }, () => []);
  }
  return bars.slice(-count).map(({ cells }) => cells);
}

function layOut(
  written: readonly WrittenBar[],
  order: readonly number[],
  /** The note value of the chart's beat, in which all times are told whatever the meter of a bar. */
  unit: number,
  problems: ChartProblem[]
): Pick<Form, 'beats' | 'tooLong'> & { changes: Change[]; bars: PlayedBar[] } {
  const changes: Change[] = [];
  const bars: PlayedBar[] = [];
  const told = new Set<number>();
  let start = 0;
  for (const [n, index] of order.entries()) {
    const bar = nth(written, index);
    const scale = unit / bar.meter.unit;
    const beats = bar.meter.beats * scale;
    bars.push({ number: n + 1, section: bar.section, start, beats, meter: bar.meter, written: index });
    const offsets = cellOffsets(bar, told.has(index) ? [] : problems).map((offset) => offset * scale);
    told.add(index);
    bar.cells.forEach((cell, c) => {
      if (cell.kind !== 'chord' || changes.length > MAX_CHANGES) return;
      endLast(changes, start + nth(offsets, c));
      const spot = bar.isRepeat ? { ...cell, place: bar.place } : cell;
      changes.push(changeOf(spot, changes.length, bar.section, n + 1, nth(offsets, c), start));
    });
    if (n === 0 && bar.cells[0]?.kind !== 'chord') {
      // Nothing sounds before the first chord.
      const first = changes[0];
      if (first) {
        changes.splice(0, changes.length, rest(bar.section, first.start), ...changes.map(shifted));
      } else changes.push(rest(bar.section, beats));
    }
    start += beats;
    if (changes.length > MAX_CHANGES) break;
  }
  endLast(changes, start);
  return {
    changes,
    bars,
    beats: start,
    tooLong: changes.length > MAX_CHANGES
  };
}

/** Where each cell starts, in beats of its own meter from the bar line. Cells split the bar evenly; a `/` is one beat. */
function cellOffsets(bar: WrittenBar, problems: ChartProblem[]): number[] {
  const { beats } = bar.meter;
  const count = bar.cells.length;
  const counted = bar.cells.some((cell) => cell.kind === 'hold' && cell.mark === '/');
  if (counted && count > beats) {
    problems.push({
      code: 'too-many-beats',
      message: `This bar counts ${count} beats where the meter has ${beats}; its chords are spread evenly.`,
      place: bar.place
    });
  }
  const step = counted && count <= beats ? 1 : beats / count;
  return bar.cells.map((_, i) => i * step);
}

/** A change with another one before it. */
const shifted = (change: Change): Change => ({ ...change, index: change.index + 1 });

function endLast(changes: Change[], end: number): void {
  const last = changes.at(-1);
  if (last) changes[changes.length - 1] = { ...last, beats: end - last.start };
}

function changeOf(
  cell: { symbol: string; place?: Place },
  index: number,
  section: string,
  bar: number,
  offset: number,
  barStart: number
): Change {
  const reading = readChord(cell.symbol);
  return {
    index,
    section,
    bar,
    beat: offset + 1,
    beats: 0,
    start: barStart + offset,
    symbol: cell.symbol,
    chord: reading.kind === 'chord' ? reading.chord : null,
    ...(reading.kind === 'problem' ? { problem: reading.problem } : {}),
    ...(cell.place ? { place: cell.place } : {})
  };
}

function rest(section: string, beats: Beats): Change {
  return { index: 0, section, bar: 1, beat: 1, beats, start: 0, symbol: 'N.C.', chord: null };
}
