/** The bars of a chart as they are written, one after the other, with all that stands at each: docs/music-rules.md, Writing on bars. */
import { lastOf, nth } from '../../base/list';
import { nextBarLine } from '../bar-line';
import { declarationOf } from '../directives';
import { leftWord, rightWord } from '../margin';
import {
  DEFAULT_METER,
  type BarLineStyle,
  type Cell,
  type Chart,
  type ChartLine,
  type Meter
} from '../model';
import { readMeter } from '../read';
import { chordsIn, type BarChord } from './beats';

export interface WrittenBar {
  /** Counted from 0, in the order of the text. */
  readonly index: number;
  /** Its line of the text, and which bar of that line it is, both from 0. */
  readonly line: number;
  readonly at: number;
  readonly cells: readonly Cell[];
  readonly chords: readonly BarChord[];
  /** It repeats the bar before (1) or the two before (2). */
  readonly repeats: 0 | 1 | 2;
  readonly meter: Meter;
  /** The meter is another one than in the bar before. */
  readonly changesMeter: boolean;
  readonly section: string;
  /** Which section it belongs to, counted from 0; a stretch without a label is one as well. */
  readonly sectionIndex: number;
  readonly opensSection: boolean;
  readonly repeatStart: boolean;
  readonly repeatEnd: boolean;
  readonly ending: readonly number[];
  /** Of the bar line behind it. */
  readonly style: BarLineStyle;
  /** What stands left of it and leads through the form: "Segno", "Coda"; else empty. */
  readonly leftWord: string;
  /** Likewise right of it: "To Coda", "D.S. al Coda". */
  readonly rightWord: string;
  /** Remarks that stand before it, each a line. */
  readonly notes: readonly string[];
}

/** Directives whose value is a remark to what follows. */
const REMARKS = new Set(['comment', 'comment_italic', 'comment_box', 'ci', 'cb', 'highlight']);

/** The remark that a line of a chart is; null for any other line. */
export function remarkIn(line: ChartLine): string | null {
  if (line.kind !== 'directive') return null;
  const { name, value } = declarationOf(line);
  return REMARKS.has(name) && value ? value : null;
}

/** All bars of a chart. `%%` stands in one bar and fills two; an empty bar behind it belongs to it and is listed as well. */
export function writtenBars({ lines }: Chart): WrittenBar[] {
  const bars: WrittenBar[] = [];
  let meter = DEFAULT_METER;
  let section = '';
  let sectionIndex = -1;
  let opens = true;
  let notes: string[] = [];
  let start = { repeatStart: false, ending: [] as readonly number[] };
  lines.forEach((line, index) => {
    if (line.kind === 'directive') {
      const { name, value } = declarationOf(line);
      if (name === 'time') meter = readMeter(value) ?? meter;
      const remark = remarkIn(line);
      if (remark) notes.push(remark);
    }
    if (line.kind === 'grid-start') {
      section = line.label;
      opens = true;
    }
    if (line.kind !== 'bars') return;
    const first = bars.length;
    line.barLines.forEach((barLine, at) => {
      const last = bars.at(-1);
      if (at === 0 && barLine.repeatEnd && last) bars[bars.length - 1] = { ...last, repeatEnd: true };
      if (barLine.repeatStart) start = { ...start, repeatStart: true };
      if (barLine.ending.length) start = { ...start, ending: barLine.ending };
      const bar = line.bars[at];
      if (!bar) return;
      if (opens) sectionIndex += 1;
      const repeat = bar.cells.find((cell) => cell.kind === 'repeat-bars');
      const behind = nth(line.barLines, at + 1);
      bars.push({
        index: bars.length,
        line: index,
        at,
        cells: bar.cells,
        chords: repeat ? [] : chordsIn(bar.cells, meter),
        repeats: repeat?.count ?? 0,
        meter,
        changesMeter: bars.length > 0 && !isSameMeter(meter, lastOf(bars).meter),
        section,
        sectionIndex,
        opensSection: opens,
        ...start,
        repeatEnd: behind.repeatEnd,
        style: behind.style,
        leftWord: '',
        rightWord: '',
        notes
      });
      start = { repeatStart: false, ending: [] };
      opens = false;
      notes = [];
    });
    const mark = (at: number, words: Partial<WrittenBar>) => {
      if (at >= first && bars[at]) bars[at] = { ...bars[at], ...words };
    };
    if (leftWord(line.left)) mark(first, { leftWord: line.left.trim() });
    if (rightWord(line.right)) mark(bars.length - 1, { rightWord: line.right.trim() });
  });
  return bars;
}

/** Whether two meters are written alike. */
export const isSameMeter = (a: Meter, b: Meter): boolean => a.beats === b.beats && a.unit === b.unit;

/** The bar in which a place of the text stands, both counted from 1; the bar before where it stands between rows; undefined before all bars. */
export function barAtPlace(
  text: string,
  bars: readonly WrittenBar[],
  place: { readonly line: number; readonly column: number }
): WrittenBar | undefined {
  const line = place.line - 1;
  const own = bars.filter((bar) => bar.line === line);
  if (own.length === 0) return bars.findLast((bar) => bar.line < line) ?? bars[0];
  const source = text.split(/\r\n|\r|\n/)[line] ?? '';
  let before = 0;
  let all = 0;
  for (let mark = nextBarLine(source, 0); mark; mark = nextBarLine(source, mark.end)) {
    all += 1;
    if (mark.at < place.column - 1) before += 1;
  }
  // A row may begin, or end, without a bar line of its own.
  const isOpened = all > own.length || source.trimStart().startsWith('|');
  return own[Math.max(0, Math.min(own.length - 1, isOpened ? before - 1 : before))];
}
