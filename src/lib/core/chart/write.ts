/** The chart-text writer: the model as tidy text that reads back to the same model. */
import { writeDirective, writeGridArguments } from './directives';
import type { BarLine, Cell, Chart, ChartLine, GridRow } from './model';

/** Writes a chart, one line of text for each of its lines, each with a line break behind it. */
export function writeChart(chart: Chart): string {
  const widths = columnWidths(chart);
  return chart.lines.map((line) => `${writeLine(line, widths)}\n`).join('');
}

/** Bars wider than this, in letters, are not padded to stand under each other. */
const WIDEST_COLUMN = 40;

/** One line of a chart as text; `widths` as `columnWidths` gives them. */
export function writeLine(line: ChartLine, widths: readonly number[]): string {
  switch (line.kind) {
    case 'directive':
      return writeDirective(line);
    case 'grid-start': {
      const said = writeGridArguments(line);
      return said ? `{start_of_grid ${said}}` : '{start_of_grid}';
    }
    case 'grid-end':
      return '{end_of_grid}';
    case 'text':
      return line.text;
    case 'bars':
      return writeRow(line, widths);
  }
}

function writeRow(row: GridRow, widths: readonly number[]): string {
  const parts = row.barLines.flatMap((barLine, i) => {
    const bar = row.bars[i];
    const cells = bar?.cells.map(writeCell).join(' ') ?? '';
    // Behind a comma or a dash the rounds of an ending would go on.
    const isClosed = barLine.ending.length > 0 && /^[,-]/.test(bar ? cells : row.right);
    const line = writeBarLine(barLine) + (isClosed ? '.' : '');
    return bar ? [line, cells.padEnd(widths[i] ?? 0)] : [line];
  });
  return [row.left, ...parts, row.right]
    .filter((part, i) => part !== '' || (i > 0 && i < parts.length))
    .join(' ')
    .trimEnd();
}

/** The widest bar of each column over all rows, in letters, so that bars stand under each other. */
export function columnWidths(chart: Chart): number[] {
  const widths: number[] = [];
  for (const line of chart.lines) {
    if (line.kind !== 'bars') continue;
    line.bars.forEach((bar, i) => {
      const width = bar.cells.map(writeCell).join(' ').length;
      if (width <= WIDEST_COLUMN) widths[i] = Math.max(widths[i] ?? 0, width);
    });
  }
  return widths;
}

function writeBarLine({ style, repeatEnd, repeatStart, ending }: BarLine): string {
  const strokes = style === 'double' ? '||' : '|';
  const close = repeatStart ? ':' : style === 'final' ? '.' : '';
  return (repeatEnd ? ':' : '') + strokes + close + ending.join(',');
}

function writeCell(cell: Cell): string {
  if (cell.kind === 'chord') return cell.symbol;
  return cell.kind === 'hold' ? cell.mark : '%'.repeat(cell.count);
}
