/** What goes out to a file and comes back from one: a chart, its lines, its melody. */
import type { Sheet } from '../harmony/sheet';
import type { LineNote } from '../line/model';
import type { Instrument } from '../neck/tuning';
import type { LeftOut } from './text/import';
import type { WrittenKey } from './written-keys';

/** A line or the melody, as a part of a file. */
export interface Voice {
  /** "line: First watch", or "melody". */
  readonly name: string;
  readonly notes: readonly LineNote[];
}

export interface Piece {
  readonly title: string;
  /** The chart's text, which formats that have room for it keep word for word. */
  readonly chart: string;
  readonly sheet: Sheet;
  readonly neck: Instrument;
  readonly voices: readonly Voice[];
}

/** What a file held. */
export interface ReadPiece {
  /** Null where no chord was found. */
  readonly chart: string | null;
  readonly melody: readonly LineNote[] | null;
  readonly lines: readonly Voice[];
  /** Keys that are written inside the tune, beside the one it begins in. */
  readonly keys?: readonly WrittenKey[];
  /** For each bar, 0 to 1, where chords were named by what is played: how sure they are. */
  readonly sure?: readonly number[];
  /** What was not taken, and what was changed on the way. */
  readonly left: readonly LeftOut[];
}

/** How a part of a file says that it is a line. */
export const LINE = 'line: ';
export const MELODY = 'melody';

/** Sorts voices by what their parts are called: lines by name, of the others the one that is called the melody, or lies highest. */
export function sorted(voices: readonly Voice[]): Pick<ReadPiece, 'melody' | 'lines'> {
  const isLine = ({ name }: Voice) => name.toLowerCase().startsWith(LINE.trim());
  const named = voices.filter(isLine).map(({ name, notes }) => ({
    name: name.slice(LINE.trim().length).trim() || 'line',
    notes
  }));
  const others = voices.filter((voice) => !isLine(voice));
  const height = ({ notes }: Voice) =>
    notes.reduce((sum, { midi }) => sum + midi, 0) / Math.max(1, notes.length);
  const [highest] = [...others].sort((a, b) => height(b) - height(a));
  const melody = others.find(({ name }) => name.toLowerCase() === MELODY) ?? highest;
  const rest = others.filter((voice) => voice !== melody);
  return { melody: melody?.notes ?? null, lines: [...named, ...rest] };
}
