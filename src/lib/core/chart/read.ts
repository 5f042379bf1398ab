/**
 * The chart-text reader. The source of a chart is ChordPro with its chords in grid sections; text with bars
 * and no directives at all is a chart too: docs/music-rules.md, Chart text.
 */
import { isChord } from '../theory/chord-reader';
import { nextBarLine, wordsOf } from './bar-line';
import { leftWord } from './margin';
import { declarationOf, declared, readDirective, readGridArguments, type Directive } from './directives';
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

/**
 * Reads a chart text in time linear in its length. Never throws and loses nothing: what it cannot read becomes text
 * lines and problems.
 */
export function readChart(text: string): ChartReading {
  const problems: ChartProblem[] = [];
  const places = new Map<number, Place[][]>();
  let inGrid: number | null = null;
  const lines = text.split(/\r\n|\r|\n/).map((source, index): ChartLine => {
    const place = { line: index + 1, column: 1, length: source.length };
    const directive = readDirective(source);
    if (directive) {
      const declaration = declarationOf(directive);
      if (declaration.name === 'start_of_grid') {
        if (inGrid !== null) problems.push(notClosed(inGrid));
        inGrid = index;
        return { kind: 'grid-start', ...readGridArguments(declaration.value) };
      }
      if (declaration.name === 'end_of_grid') {
        if (inGrid === null) {
          problems.push({
            code: 'grid-not-open',
            message: 'This {end_of_grid} closes a grid that was never started.',
            place
          });
        }
        inGrid = null;
        return { kind: 'grid-end' };
      }
      checkDeclaration(declaration, place, problems);
      return { kind: 'directive', ...directive };
    }
    const holdsBars = source.includes('|') && !source.trimStart().startsWith('#');
    if (holdsBars && (inGrid !== null || looksLikeBars(source))) {
      const { row, cellPlaces } = readRow(source, index + 1, inGrid !== null);
      places.set(index, cellPlaces);
      return row;
    }
    return { kind: 'text', text: source };
  });
  return { chart: { lines: trimLastBlank(lines) }, problems, places };
}

function notClosed(line: number): ChartProblem {
  return {
    code: 'grid-not-closed',
    message: `The grid that starts in line ${line + 1} is not closed before another one starts; add {end_of_grid}.`,
    place: { line: line + 1, column: 1, length: 1 }
  };
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
  if (leftWord(start.slice(0, start.indexOf('|')))) return true;
  const words = wordsOf(start.slice(0, start.indexOf('|')));
  return words.every(({ text }) => text === '.' || text === '/' || isChord(text));
}

function checkDeclaration({ name, value }: Directive, place: Place, problems: ChartProblem[]): void {
  if (name === 'time' && !readMeter(value)) {
    problems.push({
      code: 'bad-time',
      message: `“${clipped(value)}” is not a meter; write it like 4/4, 3/4 or 6/8.`,
      place
    });
  }
  if (name === 'pickup' && value !== '0' && readPickup(value) === null) {
    problems.push({
      code: 'bad-pickup',
      message: `“${clipped(value)}” is no pickup; write its beats, from a part of one to ${LONGEST_PICKUP}.`,
      place
    });
  }
  if (name === 'tempo' && readTempo(value) === null) {
    problems.push({
      code: 'bad-tempo',
      message: `“${clipped(value)}” is not a tempo; write beats a minute from ${MIN_TEMPO} to ${MAX_TEMPO}.`,
      place
    });
  }
}

/** What was typed, short enough to stand in a sentence. */
function clipped(text: string): string {
  return text.length > 40 ? `${text.slice(0, 40)}…` : text;
}

/** "3/4" → three beats of a quarter; null where it is no meter (1–16 beats, units 1, 2, 4, 8, 16). */
export function readMeter(value: string): Meter | null {
  const match = /^(\d{1,2}) ?\/ ?(1|2|4|8|16)$/.exec(value.trim());
  const beats = Number(match?.[1]);
  return match && beats >= 1 && beats <= 16 ? { beats, unit: Number(match[2]) } : null;
}

/** Beats of the longest pickup: two bars of the longest meters. */
const LONGEST_PICKUP = 32;

/** "2" → two beats; null where it is no length of a pickup. */
function readPickup(value: string): number | null {
  const beats = Number(value);
  return value !== '' && beats > 0 && beats <= LONGEST_PICKUP ? beats : null;
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
  let left = source.slice(0, opening).trim();
  let from = opening;
  const isMarginLabel = inGrid && /^[A-G]$/.test(left);
  // Outside a grid the line has been looked at already.
  if (left && !isMarginLabel && !leftWord(left) && (!inGrid || looksLikeBars(source))) {
    // "Dm7 | G7 |": the first bar has no line of its own in front.
    barLines.push(PLAIN_LINE);
    left = '';
    from = 0;
  }
  let right = '';
  while (from < source.length) {
    const next = nextBarLine(source, from);
    if (next === null) {
      const rest = source.slice(from);
      // What follows the last line is a bar where it reads as one, else a remark.
      if (
        rest.trim() &&
        looksLikeBars(`${rest.trimEnd()}|`) &&
        !barLines.at(-1)?.repeatEnd &&
        !isFinal(barLines)
      ) {
        addBar(rest, from);
        barLines.push(PLAIN_LINE);
      } else right = rest.trim();
      break;
    }
    if (barLines.length > 0) addBar(source.slice(from, next.at), from);
    barLines.push(next.barLine);
    from = next.end;
  }
  return { row: { kind: 'bars', left, right, bars, barLines }, cellPlaces };

  function addBar(text: string, offset: number): void {
    const words = wordsOf(text);
    bars.push({ cells: words.map((word) => readCell(word.text)) });
    cellPlaces.push(words.map((word) => ({ line, column: offset + word.at + 1, length: word.text.length })));
  }
}

function isFinal(barLines: readonly BarLine[]): boolean {
  return barLines.at(-1)?.style === 'final';
}

function readCell(word: string): Cell {
  if (word === '.' || word === '/') return { kind: 'hold', mark: word };
  if (word === '%') return { kind: 'repeat-bars', count: 1 };
  if (word === '%%') return { kind: 'repeat-bars', count: 2 };
  return { kind: 'chord', symbol: word };
}

/** What the directives declare; values that cannot be read count as not said. The first meter is the head's. */
export function chartHead({ lines }: Chart): ChartHead {
  return headOf(lines.filter((line) => line.kind === 'directive'));
}

/** The head that directives declare, in the order of the text. */
export function headOf(directives: readonly Directive[]): ChartHead {
  return {
    title: declared(directives, 'title'),
    key: declared(directives, 'key'),
    meter: readMeter(declared(directives, 'time') ?? '') ?? DEFAULT_METER,
    tempo: readTempo(declared(directives, 'tempo') ?? ''),
    feel: declared(directives, 'feel'),
    style: declared(directives, 'style'),
    pickup: readPickup(declared(directives, 'pickup') ?? '') ?? 0,
    melody: declared(directives, 'melody')
  };
}
