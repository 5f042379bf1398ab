/**
 * Degrees against the chord of the moment: the one vocabulary in which Corvel speaks of a note
 * over a chord. A tone of the chord keeps its chord degree, any other tone its tension name.
 */

import { nth } from '../base/list';

/** Every degree name, in ASCII, as used in JSON. */
export type Degree =
  | '1'
  | 'b9'
  | '9'
  | '#9'
  | 'b3'
  | '3'
  | '11'
  | '#11'
  | 'b5'
  | '5'
  | '#5'
  | 'b13'
  | '13'
  | '6'
  | 'bb7'
  | 'b7'
  | '7';

/** The family a degree is counted in: the chord's own third is "3" whatever its quality. */
export type Slot = '1' | '3' | '5' | '7' | 'tension';

interface DegreeFacts {
  /** Interval above the root in the notation of the theory library: number, then quality. */
  readonly interval: string;
  /** Semitones above the root, 0–11. */
  readonly semitones: number;
  readonly slot: Slot;
}

export const DEGREES: Readonly<Record<Degree, DegreeFacts>> = {
  '1': { interval: '1P', semitones: 0, slot: '1' },
  b9: { interval: '2m', semitones: 1, slot: 'tension' },
  '9': { interval: '2M', semitones: 2, slot: 'tension' },
  '#9': { interval: '2A', semitones: 3, slot: 'tension' },
  b3: { interval: '3m', semitones: 3, slot: '3' },
  '3': { interval: '3M', semitones: 4, slot: '3' },
  '11': { interval: '4P', semitones: 5, slot: 'tension' },
  '#11': { interval: '4A', semitones: 6, slot: 'tension' },
  b5: { interval: '5d', semitones: 6, slot: '5' },
  '5': { interval: '5P', semitones: 7, slot: '5' },
  '#5': { interval: '5A', semitones: 8, slot: '5' },
  b13: { interval: '6m', semitones: 8, slot: 'tension' },
  '13': { interval: '6M', semitones: 9, slot: 'tension' },
  '6': { interval: '6M', semitones: 9, slot: 'tension' },
  bb7: { interval: '7d', semitones: 9, slot: '7' },
  b7: { interval: '7m', semitones: 10, slot: '7' },
  '7': { interval: '7M', semitones: 11, slot: '7' }
};

export const DEGREE_NAMES = Object.keys(DEGREES) as Degree[];

/** What a tone is called when it is not a tone of the chord, by semitones above the root. */
const OUTSIDE_CHORD: readonly Degree[] = [
  '1',
  'b9',
  '9',
  '#9',
  '3',
  '11',
  '#11',
  '5',
  'b13',
  '13',
  'b7',
  '7'
];

/** Whether a word is a degree, in ASCII. */
export function isDegree(name: string): name is Degree {
  return Object.hasOwn(DEGREES, name);
}

/**
 * The degree of a pitch that lies `semitones` (0–11) above the root of a chord with the given tones.
 */
export function degreeOf(semitones: number, chordTones: readonly Degree[]): Degree {
  return chordTones.find((tone) => DEGREES[tone].semitones === semitones) ?? nth(OUTSIDE_CHORD, semitones);
}
