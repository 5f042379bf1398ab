/**
 * A chart text taken apart so that it can be changed in one place: bars with the marks that belong to each of them, and every other line
 * word for word. What an edit does not touch is written as it was typed.
 */
import type { BarLine, BarLineStyle, Cell, ChartLine, GridRow } from '../model';
import { readChart } from '../read';
import { columnWidths, writeChart, writeLine } from '../write';

/** A bar and the marks on both sides that belong to it. */
export interface Unit {
  cells: readonly Cell[];
  repeatStart: boolean;
  ending: readonly number[];
  repeatEnd: boolean;
  /** Of the bar line behind it. */
  style: BarLineStyle;
}

/** A row of bars. `lead`: what its first bar line ends; `trail`: what its last one begins. */
export interface Row {
  left: string;
  right: string;
  lead: Pick<Unit, 'repeatEnd' | 'style'>;
  units: Unit[];
  trail: Pick<Unit, 'repeatStart' | 'ending'>;
}

/** A line of the text. `typed` is null once it has been changed. */
export interface TextLine {
  typed: string | null;
  /** The line break behind it. */
  readonly end: string;
  /** A row of bars, or any other line. */
  readonly row: Row | null;
  line: ChartLine;
}

export interface TextLines {
  readonly lines: TextLine[];
  /** The text was laid out as the writer lays it out, and stays so. */
  readonly isTidy: boolean;
  /** The line break of new lines. */
  readonly end: string;
  /** The last line has a line break behind it. */
  readonly isClosed: boolean;
}

const PLAIN: Pick<BarLine, 'style' | 'repeatEnd'> = { style: 'single', repeatEnd: false };

/** A bar without marks. */
export const unitOf = (cells: readonly Cell[]): Unit => ({ cells, repeatStart: false, ending: [], ...PLAIN });

function rowOf({ left, right, bars, barLines }: GridRow): Row {
  const { style, repeatEnd } = barLines[0] ?? PLAIN;
  const last = barLines.at(-1);
  return {
    left,
    right,
    lead: { style, repeatEnd },
    units: bars.map(({ cells }, i) => ({
      cells,
      repeatStart: barLines[i]!.repeatStart,
      ending: barLines[i]!.ending,
      repeatEnd: barLines[i + 1]!.repeatEnd,
      style: barLines[i + 1]!.style
    })),
    trail: { repeatStart: last?.repeatStart ?? false, ending: last?.ending ?? [] }
  };
}

function gridRowOf({ left, right, lead, units, trail }: Row): GridRow {
  const behind = [lead, ...units];
  const before = [...units, trail];
  return {
    kind: 'bars',
    left,
    right,
    bars: units.map(({ cells }) => ({ cells })),
    barLines: behind.map(({ style, repeatEnd }, i) => {
      const { repeatStart, ending } = before[i]!;
      return { style, repeatEnd, repeatStart, ending };
    })
  };
}

/** A new row of bars. */
export const newRow = (units: Unit[], left = '', right = ''): TextLine => ({
  typed: null,
  end: '',
  row: { left, right, lead: { ...PLAIN }, units, trail: { repeatStart: false, ending: [] } },
  line: { kind: 'text', text: '' }
});

/** A new line that holds no bars. */
export const newLine = (line: ChartLine): TextLine => ({ typed: null, end: '', row: null, line });

/** Takes a text apart. Whatever is done to the rows, `textOf` writes it. */
export function linesOf(text: string): TextLines {
  const pieces = text.split(/(\r\n|\r|\n)/);
  const { chart } = readChart(text);
  const lines = chart.lines.map((line, i): TextLine => {
    const row = line.kind === 'bars' ? rowOf(line) : null;
    return { typed: pieces[2 * i]!, end: pieces[2 * i + 1] ?? '', row, line };
  });
  return {
    lines,
    isTidy: text !== '' && writeChart(chart) === text,
    end: pieces[1] ?? '\n',
    isClosed: text === '' || /[\r\n]$/.test(text)
  };
}

/** The text again. Rows without bars are gone, with their margins. */
export function textOf({ lines, isTidy, end, isClosed }: TextLines): string {
  const kept = lines.filter(({ row, typed }) => !row || row.units.length > 0 || typed !== null);
  const now = kept.map(({ row, line }) => (row ? gridRowOf(row) : line));
  const chart = { lines: now };
  if (isTidy) return writeChart(chart);
  const widths = columnWidths(chart);
  return kept
    .map(({ typed, end: own }, i) => {
      const isLast = i === kept.length - 1;
      return (typed ?? writeLine(now[i]!, widths)) + (isLast && !isClosed ? '' : own || end);
    })
    .join('');
}

/** Where a bar stands: which line, and which bar of its row. */
export interface Spot {
  readonly line: number;
  readonly at: number;
}

/** The places of all bars in the order of the text. */
export const spotsIn = ({ lines }: TextLines): Spot[] =>
  lines.flatMap(({ row }, line) => (row ? row.units.map((_, at) => ({ line, at })) : []));

/** The row of a line, marked as changed. */
export function rowAt({ lines }: TextLines, line: number): Row {
  const own = lines[line]!;
  own.typed = null;
  return own.row!;
}

/** Parts a row before one of its bars; gives the line in which that bar now begins a row. */
export function partRow(text: TextLines, { line, at }: Spot): number {
  if (at === 0) return line;
  const row = rowAt(text, line);
  const rest = newRow(row.units.splice(at), '', row.right);
  rest.row!.trail = row.trail;
  // The bar line between them is drawn once; what it ends stays with the first row.
  row.right = '';
  row.trail = { repeatStart: false, ending: [] };
  text.lines.splice(line + 1, 0, rest);
  return line + 1;
}
