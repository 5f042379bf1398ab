/** The route that reads files: a look at what would be taken; nothing is stored. Contract: docs/api.md. */
import { sure } from '../../core/base/list';
import { nth } from '../../core/base/list';
import type { z } from 'zod';
import { fail } from '../../api/errors';
import { byteLength, MAX_CHART_BYTES, MAX_FILE_BYTES, tooLargeMessage } from '../../api/limits';
import type { importRequest } from '../../api/requests';
import { declared, directivesIn, withDeclaration } from '../../core/chart/directives';
import { isChartList, readChartList } from '../../core/formats/csv/list';
import { NotReadable } from '../../core/formats/not-readable';
import type { ReadPiece } from '../../core/formats/piece';
import { importText, type LeftOut } from '../../core/formats/text/import';
import { readingsOf, type WrittenKey } from '../../core/formats/written-keys';
import { readSheet } from '../../core/harmony/sheet';
import {
  formatLike,
  formatOf,
  isNoText,
  NO_TEXT,
  unreadable,
  type FileFormat
} from '../../core/formats/registry';
import type { LineNote } from '../../core/line/model';
import { noteOut } from './line';

/** Letters at the beginning of a file that tell its format. */
const TELLING = 4096;

/** What a file holds; of a table of charts each of them, else one with its lines. */
interface ImportAnswer {
  readonly charts?: readonly { row: number; title: string; chart?: string; left: readonly LeftOut[] }[];
  readonly chart?: string;
  readonly melody?: { readonly notes: ReturnType<typeof noteOut>[] };
  readonly lines?: readonly { readonly name: string; readonly notes: ReturnType<typeof noteOut>[] }[];
  /** Keys that are written inside, each with the changes that are read in it because of that. */
  readonly keys?: readonly (WrittenKey & { readonly changes: readonly number[] })[];
  /** Where chords were named by their notes: for each bar, 0 to 1, how sure they are. */
  readonly confidence?: readonly number[];
  readonly left: readonly LeftOut[];
}

/** POST /api/v1/import */
export function answerImport({
  name,
  format,
  text,
  base64,
  german
}: z.infer<typeof importRequest>): ImportAnswer {
  const bytes = base64 === undefined ? null : Buffer.from(base64, 'base64');
  const given = text ?? (bytes ? decoded(bytes) : '');
  if ((bytes?.length ?? byteLength(given)) > MAX_FILE_BYTES) {
    fail(413, {
      code: 'file-too-large',
      message: `This file is larger than ${MAX_FILE_BYTES / 1024 / 1024} MiB; save a part of it.`,
      path: base64 === undefined ? 'text' : 'base64'
    });
  }
  const used = formatOf(format ?? '') ?? formatLike(given.slice(0, TELLING), name);
  if (format === undefined && isChartList(given)) return { charts: listed(given), left: [] };
  // What people paste is chart text in the end, and has its bounds.
  if ((used.id === 'text' || used.id === 'chordpro') && byteLength(given) > MAX_CHART_BYTES) {
    fail(413, { code: 'chart-too-large', message: tooLargeMessage(given), path: 'text' });
  }
  const {
    chart,
    melody,
    lines,
    keys = [],
    sure,
    left
  } = german !== undefined && (used.id === 'text' || used.id === 'chordpro')
    ? { ...importText(given, german), melody: null, lines: [], keys: [], sure: undefined }
    : read(used, given, bytes, name);
  const title = name?.replace(/\.\w{1,8}$/, '').trim();
  const needsTitle = chart !== null && title && declared(directivesIn(chart), 'title') === null;
  const out = (notes: readonly LineNote[]) => notes.map(noteOut);
  return {
    ...(chart === null ? {} : { chart: needsTitle ? withDeclaration(chart, 'title', title) : chart }),
    ...(melody ? { melody: { notes: out(melody) } } : {}),
    ...(chart && keys.length ? { keys: keysOut(chart, keys) } : {}),
    ...(lines.length ? { lines: lines.map((line) => ({ name: line.name, notes: out(line.notes) })) } : {}),
    ...(sure ? { confidence: sure.map((one) => Math.round(100 * one) / 100) } : {}),
    left
  };
}

/** The charts of a table of them, a row each. */
function listed(text: string) {
  try {
    return readChartList(text).map(({ row, title, chart, left }) => ({
      row,
      title,
      ...(chart === null ? {} : { chart }),
      left
    }));
  } catch (thrown) {
    if (thrown instanceof NotReadable) fail(400, { code: 'not-readable', message: thrown.message });
    throw thrown;
  }
}

function keysOut(chart: string, keys: readonly WrittenKey[]) {
  const { analysis } = readSheet(chart);
  const readings = readingsOf(analysis, keys);
  return keys.map((written, i) => ({
    ...written,
    changes: readings
      .map(({ change }) => change)
      .filter((change) => {
        const { bar } = nth(analysis.changes, change);
        return bar >= written.bar && bar < (keys[i + 1]?.bar ?? Infinity);
      })
  }));
}

/** UTF-8, or UTF-16 where a mark says so. */
function decoded(bytes: Buffer): string {
  const [first, second] = bytes;
  if (first === 0xff && second === 0xfe) return bytes.subarray(2).toString('utf16le');
  if (first === 0xfe && second === 0xff) {
    return Buffer.from(bytes.subarray(2, bytes.length - (bytes.length % 2)))
      .swap16()
      .toString('utf16le');
  }
  return bytes.toString('utf8').replace(/^\ufeff/, '');
}

function read(
  { name: format, read: own }: FileFormat,
  text: string,
  bytes: Buffer | null,
  name: string | undefined
): ReadPiece {
  try {
    const reader = sure(own, `the reader of ${format}`);
    if (reader.from === 'bytes') return reader.read(bytes ?? Buffer.from(text, 'latin1'));
    if (bytes && isNoText(text)) throw new NotReadable(NO_TEXT);
    return reader.read(text);
  } catch (thrown) {
    if (thrown instanceof NotReadable)
      fail(400, { code: 'not-readable', message: unreadable(name ?? '', thrown.message) });
    throw thrown;
  }
}
