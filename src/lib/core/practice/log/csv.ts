/** The log as a table for other programs, out and in. Rows that cannot be taken are told line by line; the good ones are. */
import { firstOf } from '../../base/list';
import { csvFormatRows, dsvFormat } from 'd3-dsv';
import { readKey } from '../../harmony/key';
import { HIGHEST_TEMPO, LOWEST_TEMPO } from '../ladder';
import { isDay } from './day';
import type { LogRow } from './model';

/** A row as it stands in the table. */
export interface WrittenRow extends Omit<LogRow, 'chart' | 'loops' | 'missed' | 'isTake'> {
  readonly id: string;
  /** Milliseconds since 1970; null where the table does not say. */
  readonly startedAt: number | null;
  readonly kind: string;
  readonly what: string;
  /** The chart's title. */
  readonly title: string;
  readonly key: string | null;
  readonly area: number | null;
  readonly note: string;
  /** For each loop the bars in which the player stumbled. */
  readonly loops?: number[][] | undefined;
}

/** A line that was left out, counted from 1, and why. */
export interface LeftLine {
  readonly line: number;
  readonly why: string;
}

const COLUMNS = [
  'id',
  'day',
  'started',
  'kind',
  'what',
  'chart',
  'item',
  'key',
  'position',
  'tempo',
  'clean',
  'rounds',
  'seconds',
  'note',
  'bars',
  'missed'
] as const;
type Column = (typeof COLUMNS)[number];

const CLEAN: Readonly<Record<string, boolean | null>> = {
  '': null,
  yes: true,
  true: true,
  clean: true,
  '1': true,
  no: false,
  false: false,
  '0': false
};
/** A loop in which nothing went wrong. */
const CLEAN_LOOP = 'clean';
const BARS = /^(\d{1,4})-(\d{1,4})$/;
const LOOPS = /^(clean|\d{1,4}( \d{1,4})*)( \/ (clean|\d{1,4}( \d{1,4})*))*$/;
/** A cell that begins like this would be reckoned by a spreadsheet; one more mark before it keeps it text, and is taken off again. */
const RECKONED = /^'*[=+\-@\t\r]/;
const asText = (text: string) => (RECKONED.test(text) ? `'${text}` : text);
const plain = (text: string) => (text.startsWith("'") && RECKONED.test(text) ? text.slice(1) : text);

/** The log as a table that `logFromCsv` reads back. */
export function logToCsv(rows: readonly WrittenRow[]): string {
  const lines = rows.map((row) => [
    row.id,
    row.day,
    row.startedAt === null ? '' : new Date(row.startedAt).toISOString(),
    row.kind,
    asText(row.what),
    asText(row.title),
    asText(row.item ?? ''),
    row.key ?? '',
    row.area === null ? '' : String(row.area),
    row.tempo === null ? '' : String(row.tempo),
    row.clean === null ? '' : row.clean ? 'yes' : 'no',
    String(row.rounds),
    String(row.seconds),
    asText(row.note),
    row.bars ? `${row.bars.from}-${row.bars.to}` : '',
    row.loops ? row.loops.map((bars) => bars.join(' ') || CLEAN_LOOP).join(' / ') : ''
  ]);
  return `${csvFormatRows([[...COLUMNS], ...lines])}\n`;
}

/** Letters that are taken of each field. */
const MOST_LETTERS = { what: 200, note: 2000, item: 120 };
/** The last bar that a form can have. */
const MOST_BARS = 8000;
/** Lines that one file may hold. */
const MOST_LINES = 100_000;

/** What parts the cells: spreadsheets in many countries write semicolons, some tabs. */
function separatorOf(text: string): string {
  const head = firstOf(text.split(/\r?\n/, 1));
  const counts = [',', ';', '\t'].map((separator) => [separator, head.split(separator).length] as const);
  return counts.reduce((a, b) => (b[1] > a[1] ? b : a))[0];
}

/** Reads a table. Only `day` and `seconds` have to be there; columns that are not known are left out. */
export function logFromCsv(text: string): {
  readonly rows: readonly WrittenRow[];
  readonly left: readonly LeftLine[];
} {
  const plainText = text.replace(/^\uFEFF/, '');
  const [head = [], ...lines] = dsvFormat(separatorOf(plainText)).parseRows(plainText);
  const at = new Map(head.map((name, i) => [name.trim().toLowerCase(), i]));
  if (!at.has('day') || !at.has('seconds')) {
    return { rows: [], left: [{ line: 1, why: 'The first line names no columns “day” and “seconds”.' }] };
  }
  const rows: WrittenRow[] = [];
  const left: LeftLine[] = [];
  lines.slice(0, MOST_LINES).forEach((cells, i) => {
    if (cells.every((cell) => cell.trim() === '')) return;
    const cell = (column: Column) => (cells[at.get(column) ?? -1] ?? '').trim();
    const why = failureOf(cell);
    if (why) left.push({ line: i + 2, why });
    else rows.push(rowOf(cell));
  });
  if (lines.length > MOST_LINES) {
    left.push({ line: MOST_LINES + 2, why: `Only the first ${MOST_LINES} lines were read.` });
  }
  return { rows, left };
}

const isCount = (text: string, most: number) => /^\d{1,6}$/.test(text) && Number(text) <= most;

function failureOf(cell: (column: Column) => string): string | null {
  const [day, seconds, tempo, clean] = [cell('day'), cell('seconds'), cell('tempo'), cell('clean')];
  if (!isDay(day)) return `“${day}” is no day; write it like 2026-03-05.`;
  if (!isCount(seconds, 86_400)) return `“${seconds}” is no number of seconds.`;
  if (tempo !== '' && !(Number(tempo) >= LOWEST_TEMPO && Number(tempo) <= HIGHEST_TEMPO)) {
    return `“${tempo}” is no tempo; the band plays from ${LOWEST_TEMPO} to ${HIGHEST_TEMPO}.`;
  }
  if (!Object.hasOwn(CLEAN, clean.toLowerCase()))
    return `“${clean}” says neither clean nor not; write yes or no.`;
  if (cell('rounds') !== '' && !isCount(cell('rounds'), 10_000))
    return `“${cell('rounds')}” is no number of rounds.`;
  if (cell('key') !== '' && !readKey(cell('key'))) return `“${cell('key')}” is no key.`;
  if (cell('position') !== '' && !isCount(cell('position'), 30))
    return `“${cell('position')}” is no position.`;
  if (cell('bars') !== '' && !barsFrom(cell('bars')))
    return `“${cell('bars')}” are no bars; write them like 9-16.`;
  if (cell('missed') !== '' && !LOOPS.test(cell('missed')))
    return `“${cell('missed')}” tells no loops; write them like “7 12 / clean”.`;
  return null;
}

function barsFrom(text: string): { from: number; to: number } | null {
  const read = BARS.exec(text);
  const [from, to] = read ? [Number(read[1]), Number(read[2])] : [0, 0];
  return from >= 1 && from <= to && to <= MOST_BARS ? { from, to } : null;
}

function loopsFrom(text: string): number[][] {
  return text.split(' / ').map((loop) => (loop === CLEAN_LOOP ? [] : loop.split(' ').map(Number)));
}

function rowOf(cell: (column: Column) => string): WrittenRow {
  const number = (column: Column) => (cell(column) === '' ? null : Number(cell(column)));
  const started = Date.parse(cell('started'));
  const bars = barsFrom(cell('bars'));
  return {
    id: cell('id'),
    day: cell('day'),
    startedAt: Number.isNaN(started) ? null : started,
    kind: cell('kind'),
    what: plain(cell('what')).slice(0, MOST_LETTERS.what),
    title: plain(cell('chart')),
    item: plain(cell('item')).slice(0, MOST_LETTERS.item) || null,
    key: cell('key') || null,
    area: number('position'),
    tempo: number('tempo'),
    clean: CLEAN[cell('clean').toLowerCase()] ?? null,
    rounds: number('rounds') ?? 1,
    seconds: Number(cell('seconds')),
    note: plain(cell('note')).slice(0, MOST_LETTERS.note),
    ...(bars ? { bars } : {}),
    ...(cell('missed') === '' ? {} : { loops: loopsFrom(cell('missed')) })
  };
}
