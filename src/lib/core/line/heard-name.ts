/** What a chord that is heard in a line is called. */
import { nth } from '../base/list';
import type { Change } from '../chart/unroll';
import type { Key } from '../harmony/key';
import { MODES } from '../theory/mode';
import { pitchClass, plainName } from '../theory/note';
import { scaleOf } from '../theory/scale';
import type { HeardChord } from './listener';
import { wantedSounds, type Verdict } from './outline';

const SHARPS = ['C', 'C#', 'D', 'D#', 'E', 'F', 'F#', 'G', 'G#', 'A', 'A#', 'B'];
const FLATS = ['C', 'Db', 'D', 'Eb', 'E', 'F', 'Gb', 'G', 'Ab', 'A', 'Bb', 'B'];

/** A chord that is heard, its root named as the key has it. The listener itself knows no key. */
export function heardIn({ tonic, mode }: Key, { symbol, root }: Pick<HeardChord, 'symbol' | 'root'>): string {
  const notes = scaleOf(tonic, MODES[mode].scale)?.notes ?? [];
  const names = notes.some((note) => note.includes('#')) ? SHARPS : FLATS;
  // The key's own name comes first: the VI of E♭ minor is C♭.
  const own = notes.find((note) => pitchClass(note) === root);
  return (own ?? nth(names, root)) + symbol.slice(plainName(root).length);
}

/** A chord of the chart, or what stands in its place. */
type Written = Pick<Change, 'symbol' | 'chord'>;

/** The symbol of a chord that is heard at a change: the chart's own where it has the same notes, else as the key names it. */
export function heardSymbol(key: Key, { symbol, chord }: Written, heard: HeardChord): string {
  return chord && wantedSounds(chord).has(heard.pitchSet) ? symbol : heardIn(key, heard);
}

/** The symbol of what is heard above all at a change; empty where nothing is. What is heard clearly is the chart's chord. */
export function mostHeard(
  key: Key,
  written: Written,
  { heard, verdict }: { readonly heard: readonly HeardChord[]; readonly verdict?: Verdict | undefined }
): string {
  const [first] = heard;
  if (!first) return '';
  return verdict === 'clear' ? written.symbol : heardSymbol(key, written, first);
}
