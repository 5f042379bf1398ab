/**
 * A chart text taken apart so that it can be changed in one place: bars with the marks that belong to each of them, and every other line
 * word for word. What an edit does not touch is written as it was typed.
 */
import { nth, sure } from '../../base/list';
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
      repeatStart: nth(barLines, i).repeatStart,
      ending: nth(barLines, i).ending,
      repeatEnd: nth(barLines, i + 1).repeatEnd,
      style: nth(barLines, i + 1).style
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
      const { repeatStart, ending } = nth(before, i);
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
    return { typed: nth(pieces, 2 * i), end: pieces[2 * i + 1] ?? '', row, line };
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
      return (typed ?? writeLine(nth(now, i), widths)) + (isLast && !isClosed ? '' : own || end);
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

/** The row of a line. Throws where the line is none of bars. */
export const rowIn = ({ lines }: TextLines, line: number): Row =>
  sure(nth(lines, line).row, `the row of line ${line}`);

/** The row of a line, marked as changed. */
export function rowAt(text: TextLines, line: number): Row {
  nth(text.lines, line).typed = null;
  return rowIn(text, line);
}

/** Parts a row before one of its bars; gives the line in which that bar now begins a row. */
export function partRow(text: TextLines, { line, at }: Spot): number {
  if (at === 0) return line;
  const row = rowAt(text, line);
  const rest = newRow(row.units.splice(at), '', row.right);
  sure(rest.row, 'the row of new bars').trail = row.trail;
  // The bar line between them is drawn once; what it ends stays with the first row.
  row.right = '';
  row.trail = { repeatStart: false, ending: [] };
  text.lines.splice(line + 1, 0, rest);
  return line + 1;
}
