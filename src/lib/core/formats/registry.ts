/** The formats that files have: a new one is a row here and a module that writes it, reads it, or both. */
import { sure } from '../base/list';
import { writeCsv } from './csv/write';
import { readCsv } from './csv/read';
import { readMidi } from './midi/read';
import { writeMidiPiece } from './midi/write';
import { readMxl } from './musicxml/mxl';
import { readMusicXml } from './musicxml/read';
import { writeMusicXml } from './musicxml/write';
import type { Piece, ReadPiece } from './piece';
import { isTab, readTab } from './tab/read';
import { HOW_TO_READ, writeTab } from './tab/write';
import { importText } from './text/import';
import { writeInline } from './text/inline';

interface FormatFacts {
  readonly id: string;
  readonly name: string;
  readonly hint: string;
  readonly type: string;
  readonly extension: string;
  /** The file of a piece; absent where it is only read. */
  readonly write?: (piece: Piece) => string | Uint8Array<ArrayBuffer>;
  /** What a file holds; absent where it is only written. Throws `NotReadable`. */
  readonly read?:
    | { readonly from: 'text'; readonly read: (text: string) => ReadPiece }
    | { readonly from: 'bytes'; readonly read: (bytes: Uint8Array) => ReadPiece };
  /** True where the beginning of a file says that it is one of these. */
  readonly isOne?: (text: string) => boolean;
}

function readChartText(text: string): ReadPiece {
  return { ...importText(text), melody: null, lines: [] };
}

export const FORMATS = [
  {
    id: 'musicxml',
    name: 'MusicXML',
    hint: 'Staff, tab, chords and techniques, for notation programs',
    type: 'application/vnd.recordare.musicxml+xml',
    extension: 'musicxml',
    write: writeMusicXml,
    read: { from: 'text', read: readMusicXml },
    isOne: (text) => /^\s*<(?:\?xml|!DOCTYPE|score-)/.test(text)
  },
  {
    id: 'mxl',
    name: 'Compressed MusicXML',
    hint: 'What notation programs save to share',
    type: 'application/vnd.recordare.musicxml',
    extension: 'mxl',
    read: { from: 'bytes', read: readMxl },
    isOne: (text) => text.startsWith('PK\u0003\u0004')
  },
  {
    id: 'midi',
    name: 'MIDI',
    hint: 'Notes in time, chord names as markers',
    type: 'audio/midi',
    extension: 'mid',
    write: writeMidiPiece,
    read: { from: 'bytes', read: readMidi },
    isOne: (text) => text.startsWith('MThd')
  },
  {
    id: 'tab',
    name: 'Tab',
    hint: 'Plain text with the beats of every note',
    type: 'text/plain; charset=utf-8',
    extension: 'txt',
    write: writeTab,
    read: { from: 'text', read: readTab },
    // Chords over words may have a bar of tab among them; those are a chart all the same.
    isOne: (text) => isTab(text) && (text.includes(HOW_TO_READ) || importText(text).chart === null)
  },
  {
    id: 'csv',
    name: 'CSV',
    hint: 'A table of chords and notes',
    type: 'text/csv; charset=utf-8',
    extension: 'csv',
    write: writeCsv,
    read: { from: 'text', read: readCsv },
    isOne: (text) => /^\ufeff?part,/.test(text)
  },
  {
    id: 'chordpro',
    name: 'Chart text',
    hint: 'The chart as it was typed',
    type: 'text/plain; charset=utf-8',
    extension: 'cho',
    write: ({ chart }) => chart,
    read: { from: 'text', read: readChartText }
  },
  {
    id: 'inline',
    name: 'ChordPro, chords in brackets',
    hint: 'For programs that do not read grids: the form written out',
    type: 'text/plain; charset=utf-8',
    extension: 'pro',
    write: writeInline
  },
  {
    id: 'text',
    name: 'Text',
    hint: 'Chords as people paste them',
    type: 'text/plain; charset=utf-8',
    extension: 'txt',
    read: { from: 'text', read: readChartText }
  }
] as const satisfies readonly FormatFacts[];

export type FileFormat = FormatFacts;

export const WRITTEN_FORMATS = (FORMATS as readonly FormatFacts[]).filter(({ write }) => write);

export function formatOf(id: string): FormatFacts | undefined {
  return (FORMATS as readonly FormatFacts[]).find((format) => format.id === id);
}

/** How the names of files end that are always of one format, whatever is left of what is in them. */
const BY_NAME: Readonly<Record<string, string>> = {
  mid: 'midi',
  midi: 'midi',
  mxl: 'mxl',
  musicxml: 'musicxml',
  xml: 'musicxml'
};

/**
 * The format of a file that does not say its own: by how it begins, else by how its name ends, so that a damaged file is told
 * as what it was; plain text where nothing tells.
 */
export function formatLike(text: string, name = ''): FormatFacts {
  const ending = /\.(\w+)$/.exec(name)?.[1]?.toLowerCase() ?? '';
  return (
    (FORMATS as readonly FormatFacts[]).find(({ isOne }) => isOne?.(text)) ??
    sure(formatOf(BY_NAME[ending] ?? 'text'), 'formatOf')
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
