/** Files that the player brings: read here, in the page, by the table of formats. */
import { sure } from '$lib/core/base/list';
import type { LineData } from '$lib/api/line';
import { readSheet } from '$lib/core/harmony/sheet';
import { withMelody } from '$lib/core/line/melody-out';
import { MAX_FILE_BYTES } from '$lib/api/limits';
import { NotReadable } from '$lib/core/formats/not-readable';
import { formatLike, isNoText, NO_TEXT, unreadable } from '$lib/core/formats/registry';
import type { ReadPiece } from '$lib/core/formats/piece';
import { readingsOf } from '$lib/core/formats/written-keys';
import { overrule } from '$lib/core/plan/edits';
import { firstPlan } from '$lib/core/plan/arrange';
import type { Plan } from '$lib/core/plan/model';

/** Letters at the beginning of a file that tell its format. */
const TELLING = 4096;

/** What a file holds; rejects with a sentence where it cannot be read. */
export async function pieceIn(file: File): Promise<ReadPiece> {
  if (file.size > MAX_FILE_BYTES) {
    throw new Error(`“${file.name}” is larger than ${MAX_FILE_BYTES / 1024 / 1024} MiB; save a part of it.`);
  }
  const bytes = new Uint8Array(await file.arrayBuffer());
  const mark =
    bytes[0] === 0xff && bytes[1] === 0xfe
      ? 'utf-16le'
      : bytes[0] === 0xfe && bytes[1] === 0xff
        ? 'utf-16be'
        : 'utf-8';
  const text = new TextDecoder(mark).decode(bytes);
  const { name, read } = formatLike(text.slice(0, TELLING), file.name);
  try {
    const reader = sure(read, `the reader of ${name}`);
    if (reader.from === 'bytes') return reader.read(bytes);
    if (isNoText(text)) throw new NotReadable(NO_TEXT);
    return reader.read(text);
  } catch (error) {
    throw new Error(unreadable(file.name, error instanceof NotReadable ? error.message : NO_TEXT), {
      cause: error
    });
  }
}

/** A chart from a file, its melody in its text, and its lines as they are kept. */
export interface Imported extends Pick<ReadPiece, 'chart' | 'lines' | 'left'> {
  readonly over: LineData['over'];
  /** What the file says of the reading of single changes: keys that are written inside the tune. */
  readonly plan?: Plan;
  /** Where it is a chart that Corvel saved as one file: the whole of it, which the server reads. */
  readonly whole?: unknown;
  /** What such a file holds beside its chart. */
  readonly holds?: { readonly lines: number; readonly items: number; readonly takes: number };
}

/** How the name of a chart ends that was saved as one file. */
export const WHOLE_CHART = '.corvel.json';

/** A chart that Corvel saved as one file; whether all of it holds is the server's to say. */
async function wholeIn(file: File): Promise<Imported> {
  if (file.size > MAX_FILE_BYTES)
    throw new Error(`“${file.name}” is larger than ${MAX_FILE_BYTES / 1024 / 1024} MiB.`);
  const parts: readonly (keyof WholeParts)[] = ['lines', 'items', 'takes'];
  try {
    const whole = JSON.parse(await file.text()) as { corvel?: unknown; chart?: unknown } & WholeParts;
    if (whole.corvel !== 'chart' || typeof whole.chart !== 'string') throw new Error();
    const [lines, items, takes] = parts.map((part) =>
      Array.isArray(whole[part]) ? whole[part].length : 0
    ) as [number, number, number];
    return { chart: whole.chart, lines: [], left: [], over: [], whole, holds: { lines, items, takes } };
  } catch {
    throw new Error(`“${file.name}” is no chart that Corvel saved; it may have been changed or cut off.`);
  }
}
interface WholeParts {
  readonly lines?: unknown;
  readonly items?: unknown;
  readonly takes?: unknown;
}

/** The charts of a file that is a table of them; null where it is none. */
export async function listIn(file: File): Promise<readonly Imported[] | null> {
  const { isChartList, readChartList } = await import('$lib/core/formats/csv/list');
  if (!/\.(?:csv|tsv|txt)$/i.test(file.name) || file.size > MAX_FILE_BYTES) return null;
  const text = await file.text();
  if (!isChartList(text)) return null;
  return readChartList(text).map(({ row, title, chart, left }) => {
    const why = `Row ${row}${title ? `, “${title}”,` : ''} has no chord in it.`;
    return asImported({
      chart,
      melody: null,
      lines: [],
      left: chart === null ? [{ text: title, why }] : left
    });
  });
}

export async function chartIn(file: File): Promise<Imported> {
  if (file.name.endsWith(WHOLE_CHART)) return wholeIn(file);
  return asImported(await pieceIn(file));
}

function asImported({ chart, melody, lines, keys = [], left }: ReadPiece): Imported {
  if (chart === null) return { chart, lines: [], left, over: [] };
  const sheet = readSheet(chart);
  const { head, form, analysis } = sheet;
  const isNew = melody !== null && head.melody === null;
  const readings = readingsOf(analysis, keys);
  const plan = readings.reduce((sum, { change, key }) => overrule(sum, change, { key }), firstPlan(sheet));
  return {
    chart: isNew ? withMelody(chart, melody, form) : chart,
    lines,
    left,
    ...(readings.length ? { plan } : {}),
    over: analysis.changes.map(({ symbol, start, beats }) => ({ symbol, start, beats }))
  };
}
