/** The key signature of a key, as staves and files write it. */
import { sharpsOf } from '../theory/tonic';
import type { Key } from './key';

/** Sharps (above nought) or flats (below) of a key, at most seven: an enharmonic key where it would have more. */
export function accidentalsOf(key: Key): number {
  const found = sharpsOf(key);
  return found > 7 ? found - 12 : found < -7 ? found + 12 : found;
}

const MAJOR_KEYS = ['Cb', 'Gb', 'Db', 'Ab', 'Eb', 'Bb', 'F', 'C', 'G', 'D', 'A', 'E', 'B', 'F#', 'C#'];
const MINOR_KEYS = ['Ab', 'Eb', 'Bb', 'F', 'C', 'G', 'D', 'A', 'E', 'B', 'F#', 'C#', 'G#', 'D#', 'A#'];

/** The key of a signature as it is written ("Eb", "F#m"), from seven flats (-7) to seven sharps; null for none. */
export function keyOf(accidentals: number, isMinor: boolean): string | null {
  const tonic = (isMinor ? MINOR_KEYS : MAJOR_KEYS)[accidentals + 7];
  return tonic === undefined ? null : tonic + (isMinor ? 'm' : '');
}
