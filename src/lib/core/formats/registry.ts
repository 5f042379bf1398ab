/** What is done with each format: a new one is a row of `facts`, a row here, and a module that writes it, reads it, or both. */
import { sure } from '../base/list';
import { writeCsv } from './csv/write';
import { readCsv } from './csv/read';
import { readMidi } from './midi/read';
import { writeMidiPiece } from './midi/write';
import { readMxl } from './musicxml/mxl';
import { readMusicXml } from './musicxml/read';
import { writeMusicXml } from './musicxml/write';
import { FORMAT_FACTS, type FormatFacts, type FormatId } from './facts';
import type { Piece, ReadPiece } from './piece';
import { isTab, readTab } from './tab/read';
import { HOW_TO_READ, writeTab } from './tab/write';
import { importText } from './text/import';
import { writeInline } from './text/inline';

/** What is done with a format. */
interface FormatCode {
  /** The file of a piece; absent where it is only read. */
  readonly write?: (piece: Piece) => string | Uint8Array<ArrayBuffer>;
  /** What a file holds; absent where it is only written. Throws `NotReadable`. */
  readonly read?:
    | { readonly from: 'text'; readonly read: (text: string) => ReadPiece }
    | { readonly from: 'bytes'; readonly read: (bytes: Uint8Array) => ReadPiece };
  /** True where the beginning of a file says that it is one of these. */
  readonly isOne?: (text: string) => boolean;
}

export interface FileFormat extends FormatFacts, FormatCode {}

function readChartText(text: string): ReadPiece {
  return { ...importText(text), melody: null, lines: [] };
}

const CODE: Readonly<Record<FormatId, FormatCode>> = {
  musicxml: {
    write: writeMusicXml,
    read: { from: 'text', read: readMusicXml },
    isOne: (text) => /^\s*<(?:\?xml|!DOCTYPE|score-)/.test(text)
  },
  mxl: {
    read: { from: 'bytes', read: readMxl },
    isOne: (text) => text.startsWith('PK\u0003\u0004')
  },
  midi: {
    write: writeMidiPiece,
    read: { from: 'bytes', read: readMidi },
    isOne: (text) => text.startsWith('MThd')
  },
  tab: {
    write: writeTab,
    read: { from: 'text', read: readTab },
    // Chords over words may have a bar of tab among them; those are a chart all the same.
    isOne: (text) => isTab(text) && (text.includes(HOW_TO_READ) || importText(text).chart === null)
  },
  csv: {
    write: writeCsv,
    read: { from: 'text', read: readCsv },
    isOne: (text) => /^\ufeff?part,/.test(text)
  },
  chordpro: {
    write: ({ chart }) => chart,
    read: { from: 'text', read: readChartText }
  },
  inline: {
    write: writeInline
  },
  text: {
    read: { from: 'text', read: readChartText }
  }
};

export const FORMATS: readonly (FileFormat & { readonly id: FormatId })[] = FORMAT_FACTS.map((facts) => ({
  ...facts,
  ...CODE[facts.id]
}));

export const WRITTEN_FORMATS = FORMATS.filter(({ write }) => write);

/** The format of an id. */
export function formatOf(id: string): FileFormat | undefined {
  return FORMATS.find((format) => format.id === id);
}

/**
 * The format of a file that does not say its own: by how it begins, else by how its name ends, so that a damaged file is told
 * as what it was; plain text where nothing tells.
 */
export function formatLike(text: string, name = ''): FileFormat {
  const ending = /\.(\w+)$/.exec(name)?.[1]?.toLowerCase() ?? '';
  return (
    FORMATS.find(({ isOne }) => isOne?.(text)) ??
    FORMATS.find(({ endings, isByName }) => isByName && endings.includes(ending)) ??
    sure(formatOf('text'), 'formatOf')
  );
}

/** Letters that no text has; a few in a long text may be slips. */
// eslint-disable-next-line no-control-regex
const NO_LETTER = /[\u0000-\u0008\u000e-\u001f\ufffd]/g;
const SLIPS = 0.02;

/** Whether what is read as text is none: a picture, a sound, a file of some other program. */
export function isNoText(text: string): boolean {
  const beginning = text.slice(0, 4096);
  return (beginning.match(NO_LETTER)?.length ?? 0) > SLIPS * beginning.length;
}

/** Why a file cannot be read, with its name where it has one. */
export const unreadable = (name: string, why: string): string =>
  name ? `“${name}” cannot be read. ${why}` : why;

export const NO_TEXT = 'It is no text, and no kind of file that Corvel reads; it may be damaged.';
