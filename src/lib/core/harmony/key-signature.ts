/** The key signature of a key, as staves and files write it. */
import type { Mode } from '../theory/mode';
import type { Key } from './key';

/** Sharps that each mode has more than the major key of its tonic, flats where fewer. */
const MODE_ACCIDENTALS: Readonly<Record<Mode, number>> = {
  major: 0,
  lydian: 1,
  mixolydian: -1,
  dorian: -2,
  minor: -3,
  phrygian: -4
};

/** Sharps (above nought) or flats (below) of a key, at most seven: an enharmonic key where it would have more. */
export function accidentalsOf({ tonic, mode }: Key): number {
  const letter = 'FCGDAEB'.indexOf(tonic[0]!) - 1;
  const altered = [...tonic.slice(1)].reduce((sum, sign) => sum + (sign === '#' ? 7 : -7), 0);
  const found = letter + altered + MODE_ACCIDENTALS[mode];
  return found > 7 ? found - 12 : found < -7 ? found + 12 : found;
}

const MAJOR_KEYS = ['Cb', 'Gb', 'Db', 'Ab', 'Eb', 'Bb', 'F', 'C', 'G', 'D', 'A', 'E', 'B', 'F#', 'C#'];
const MINOR_KEYS = ['Ab', 'Eb', 'Bb', 'F', 'C', 'G', 'D', 'A', 'E', 'B', 'F#', 'C#', 'G#', 'D#', 'A#'];

/** The key of a signature as it is written ("Eb", "F#m"), from seven flats (-7) to seven sharps; null for none. */
export function keyOf(accidentals: number, isMinor: boolean): string | null {
  const tonic = (isMinor ? MINOR_KEYS : MAJOR_KEYS)[accidentals + 7];
  return tonic === undefined ? null : tonic + (isMinor ? 'm' : '');
}
