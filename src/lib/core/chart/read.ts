/**
 * The chart-text reader. The source of a chart is ChordPro with its chords in grid sections; text with bars
 * and no directives at all is a chart too. See the Chart text section of the music rules.
 */
import { readChord } from '../theory/chord';
import {
  DEFAULT_METER,
  MAX_TEMPO,
  MIN_TEMPO,
  type Bar,
  type BarLine,
  type Cell,
  type Chart,
  type ChartHead,
  type ChartLine,
  type ChartProblem,
  type GridRow,
  type Meter,
  type Place
} from './model';

export interface ChartReading {
  readonly chart: Chart;
  readonly problems: readonly ChartProblem[];
  /** The place of each cell in the text, by line of the chart, bar and cell. */
  readonly places: CellPlaces;
}

/** `places.get(lineIndex)?.[bar]?.[cell]`. */
export type CellPlaces = ReadonlyMap<number, readonly (readonly Place[])[]>;

const DIRECTIVE = /^\s*\{\s*([^\s:}]+)\s*:?\s*(.*?)\s*\}\s*$/;
const GRID_START = new Set(['start_of_grid', 'sog']);
const GRID_END = new Set(['end_of_grid', 'eog']);
/** One bar line: an ending of a repeat, strokes, a dot or a start of a repeat, the rounds of an ending. */
const BAR_LINE = /(:)?\|{1,2}([:.])?(?:\s?(\d(?:\s*[,-]\s*\d)*)\.?(?![^\s|]))?/y;

/** A cell: no space in it but inside parentheses, where players write "7(b9, #11)". */
const CELL = /[^\s(]*\([^()]*\)\S*|\S+/g;

/** Reads a chart text. Never throws and loses nothing: what it cannot read becomes text lines and problems. */
export function readChart(text: string): ChartReading {
  const problems: ChartProblem[] = [];
  const places = new Map<number, Place[][]>();
  let inGrid: number | null = null;
  const lines = text.split(/\r\n|\r|\n/).map((source, index): ChartLine => {
    const directive = DIRECTIVE.exec(source);
    if (directive) {
      const name = directive[1]!.toLowerCase();
      if (GRID_START.has(name)) {
        if (inGrid !== null) {
          problems.push({
            code: 'grid-not-closed',
            message: `The grid that starts in line ${inGrid + 1} is not closed before another one starts; add {end_of_grid}.`,
            place: { line: inGrid + 1, column: 1, length: 1 }
          });
        }
        inGrid = index;
        return { kind: 'grid-start', label: gridLabel(directive[2]!) };
      }
      if (GRID_END.has(name)) {
        if (inGrid === null) {
          problems.push({
            code: 'grid-not-open',
            message: 'This {end_of_grid} closes a grid that was never started.',
            place: { line: index + 1, column: 1, length: source.length }
          });
        }
        inGrid = null;
        return { kind: 'grid-end' };
      }
      checkDirective(name, directive[2]!, { line: index + 1, column: 1, length: source.length }, problems);
      return { kind: 'directive', name: directive[1]!, value: directive[2]! };
    }
    const holdsBars = source.includes('|') && !/^\s*#/.test(source);
    if (holdsBars && (inGrid !== null || looksLikeBars(source))) {
      const { row, cellPlaces } = readRow(source, index + 1, inGrid !== null);
      places.set(index, cellPlaces);
      return row;
    }
    return { kind: 'text', text: source };
  });
  return { chart: { lines: trimLastBlank(lines) }, problems, places };
}

/** A text's closing line break is not a line of the chart. */
function trimLastBlank(lines: ChartLine[]): ChartLine[] {
  const last = lines.at(-1);
  return last?.kind === 'text' && last.text === '' ? lines.slice(0, -1) : lines;
}

/** Outside a grid a line counts as bars when it starts with a bar line, or with a chord before the first one. */
function looksLikeBars(source: string): boolean {
  const start = source.trimStart();
  if (start.startsWith('|') || start.startsWith(':|')) return true;
  const words = start.slice(0, start.indexOf('|')).trim().split(/\s+/);
  return words.every((word) => word === '.' || word === '/' || readChord(word).kind !== 'problem');
}

/** The label of a grid: `label="A"`, or the plain word of an older file; the shape argument is not a label. */
function gridLabel(value: string): string {
  const named = /label\s*=\s*(?:"([^"]*)"|'([^']*)')/.exec(value);
  if (named) return named[1] ?? named[2] ?? '';
  return /shape\s*=|^\d+(?:[x+]\d+)*$/.test(value) ? '' : value;
}

function checkDirective(name: string, value: string, place: Place, problems: ChartProblem[]): void {
  if (name === 'time' && !readMeter(value)) {
    problems.push({
      code: 'bad-time',
      message: `“${value}” is not a meter; write it like 4/4, 3/4 or 6/8.`,
      place
    });
  }
  if (name === 'tempo' && readTempo(value) === null) {
    problems.push({
      code: 'bad-tempo',
      message: `“${value}” is not a tempo; write beats a minute from ${MIN_TEMPO} to ${MAX_TEMPO}.`,
      place
    });
  }
}

/** "3/4" → three beats of a quarter; null where it is no meter (1–16 beats, units 1, 2, 4, 8, 16). */
export function readMeter(value: string): Meter | null {
  const match = /^(\d{1,2})\s*\/\s*(1|2|4|8|16)$/.exec(value.trim());
  const beats = Number(match?.[1]);
  return match && beats >= 1 && beats <= 16 ? { beats, unit: Number(match[2]) } : null;
}

function readTempo(value: string): number | null {
  const tempo = Number(value);
  return value !== '' && tempo >= MIN_TEMPO && tempo <= MAX_TEMPO ? tempo : null;
}

const PLAIN_LINE: BarLine = { style: 'single', repeatEnd: false, repeatStart: false, ending: [] };

function readRow(source: string, line: number, inGrid: boolean): { row: GridRow; cellPlaces: Place[][] } {
  const bars: Bar[] = [];
  const barLines: BarLine[] = [];
  const cellPlaces: Place[][] = [];
  const first = source.indexOf('|');
  const opening = source[first - 1] === ':' ? first - 1 : first;
  const before = source.slice(0, opening);
  let left = before.trim();
  let from = opening;
  const isMarginLabel = inGrid && /^[A-G]$/.test(left);
  if (left && !isMarginLabel && looksLikeBars(source)) {
    // "Dm7 | G7 |": the first bar has no line of its own in front.
    barLines.push(PLAIN_LINE);
    left = '';
    from = 0;
  }
  let right = '';
  while (from < source.length) {
    const start = nextBarLine(source, from);
    if (start === null) {
      const rest = source.slice(from);
      // What follows the last line is a bar where it reads as one, else a remark.
      if (rest.trim() && looksLikeBars(`${rest}|`) && !barLines.at(-1)?.repeatEnd && !isFinal(barLines)) {
        addBar(rest, from);
        barLines.push(PLAIN_LINE);
      } else right = rest.trim();
      break;
    }
    if (barLines.length > 0) addBar(source.slice(from, start.at), from);
    barLines.push(start.barLine);
    from = start.end;
  }
  return { row: { kind: 'bars', left, right, bars, barLines }, cellPlaces };

  function addBar(text: string, offset: number): void {
    const cells: Cell[] = [];
    const spots: Place[] = [];
    for (const word of text.matchAll(CELL)) {
      cells.push(readCell(word[0]));
      spots.push({ line, column: offset + word.index + 1, length: word[0].length });
    }
    bars.push({ cells });
    cellPlaces.push(spots);
  }
}

function isFinal(barLines: readonly BarLine[]): boolean {
  return barLines.at(-1)?.style === 'final';
}

function nextBarLine(source: string, from: number): { at: number; end: number; barLine: BarLine } | null {
  const stroke = source.indexOf('|', from);
  if (stroke < 0) return null;
  const at = stroke > from && source[stroke - 1] === ':' ? stroke - 1 : stroke;
  BAR_LINE.lastIndex = at;
  const match = BAR_LINE.exec(source)!;
  const strokes = match[0].split('|').length - 1;
  const repeatEnd = match[1] === ':';
  const repeatStart = match[2] === ':';
  return {
    at,
    end: BAR_LINE.lastIndex,
    barLine: {
      style: match[2] === '.' ? 'final' : strokes === 2 && !(repeatEnd && repeatStart) ? 'double' : 'single',
      repeatEnd,
      repeatStart,
      ending: readRounds(match[3] ?? '')
    }
  };
}

/** "1" → [1], "1,3" → [1, 3], "1-3" → [1, 2, 3]. */
function readRounds(text: string): number[] {
  const [from, to] = text.split('-').map(Number);
  if (to !== undefined) return Array.from({ length: Math.max(0, to - from! + 1) }, (_, i) => from! + i);
  return text ? text.split(',').map(Number) : [];
}

function readCell(word: string): Cell {
  if (word === '.' || word === '/') return { kind: 'hold', mark: word };
  if (word === '%') return { kind: 'repeat-bars', count: 1 };
  if (word === '%%') return { kind: 'repeat-bars', count: 2 };
  return { kind: 'chord', symbol: word };
}

/** The value of a directive by any of its names, the last one winning; null where there is none. */
function directive(chart: Chart, ...names: string[]): string | null {
  let value: string | null = null;
  for (const line of chart.lines) {
    if (line.kind !== 'directive') continue;
    const name = line.name.toLowerCase();
    const meta = name === 'meta' ? /^(\S+)\s+(.*)$/.exec(line.value) : null;
    if (names.includes(name)) value = line.value;
    else if (meta && names.includes(meta[1]!.toLowerCase())) value = meta[2]!;
  }
  return value || null;
}

/** What the directives declare; values that cannot be read count as not said. The first meter is the head's. */
export function chartHead(chart: Chart): ChartHead {
  const time = chart.lines.find((l) => l.kind === 'directive' && l.name.toLowerCase() === 'time');
  return {
    title: directive(chart, 'title', 't'),
    key: directive(chart, 'key'),
    meter: (time?.kind === 'directive' ? readMeter(time.value) : null) ?? DEFAULT_METER,
    tempo: readTempo(directive(chart, 'tempo') ?? ''),
    feel: directive(chart, 'feel')
  };
}

/**
 * The text with one directive set: its line is replaced, or a new one put first. Everything else stays as
 * typed.
 */
export function withDirective(text: string, name: string, value: string): string {
  // A closing brace would end the directive early.
  const line = `{${name}: ${value.replaceAll(/[{}\r\n]/g, ' ').trim()}}`;
  const pattern = new RegExp(`^[ \\t]*\\{\\s*${name}\\s*[: ].*\\}[ \\t]*$`, 'im');
  return pattern.test(text) ? text.replace(pattern, () => line) : `${line}\n${text}`;
}
