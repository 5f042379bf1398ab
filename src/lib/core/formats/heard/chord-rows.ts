/**
 * The chords that may be heard in an accompaniment: what each of the twelve pitches costs them, and what it costs that a tone of theirs is
 * never played. Another table than the outline test has: that one judges single lines, in which most tones are missing.
 */
import type { PitchClass } from '../../theory/note';

const OCTAVE = 12;

/** What a beat of a pitch costs a chord to which it is a colour, and one to which it is foreign. */
const COLOUR = 2.5;
export const FOREIGN = 5;
/** What a tone costs that is never played, by its semitones over the root. */
const NEVER = { root: 1.6, third: 2.2, fifth: 0.6, telling: 1.8, seventh: 1.6, colour: 1.5 } as const;

interface Quality {
  readonly suffix: string;
  /** Semitones over the root, the root first. */
  readonly tones: readonly number[];
  readonly colours?: readonly number[];
  /** What it pays for being rarer than a triad. */
  readonly rare?: number;
  /** It may stand over a bass that is none of its tones: F/G. */
  readonly isPlain?: true;
}

/** The plainer first. Extensions have rows of their own, so that what is played is what is written. */
const QUALITIES: readonly Quality[] = [
  { suffix: '', tones: [0, 4, 7], colours: [2, 9], isPlain: true },
  { suffix: 'm', tones: [0, 3, 7], colours: [2, 5], isPlain: true },
  { suffix: '7', tones: [0, 4, 7, 10], colours: [1, 2, 3, 9], rare: 0.2 },
  { suffix: 'maj7', tones: [0, 4, 7, 11], colours: [2, 6, 9], rare: 0.25, isPlain: true },
  { suffix: 'm7', tones: [0, 3, 7, 10], colours: [2, 5], rare: 0.2, isPlain: true },
  { suffix: 'm7b5', tones: [0, 3, 6, 10], colours: [5, 8], rare: 0.35 },
  { suffix: 'dim7', tones: [0, 3, 6, 9], rare: 0.4 },
  { suffix: 'dim', tones: [0, 3, 6], rare: 0.7 },
  { suffix: 'aug', tones: [0, 4, 8], rare: 0.9 },
  { suffix: '6', tones: [0, 4, 7, 9], colours: [2], rare: 0.6 },
  { suffix: 'm6', tones: [0, 3, 7, 9], colours: [2], rare: 0.6 },
  { suffix: 'sus4', tones: [0, 5, 7], colours: [2], rare: 0.7 },
  { suffix: 'sus2', tones: [0, 2, 7], rare: 0.9 },
  { suffix: '7sus4', tones: [0, 5, 7, 10], colours: [2, 9], rare: 0.6 },
  { suffix: 'm(maj7)', tones: [0, 3, 7, 11], colours: [2], rare: 0.8 },
  { suffix: '9', tones: [0, 4, 7, 10, 2], colours: [9], rare: 0.5 },
  { suffix: 'maj9', tones: [0, 4, 7, 11, 2], colours: [9], rare: 0.6 },
  { suffix: 'm9', tones: [0, 3, 7, 10, 2], colours: [5], rare: 0.5 },
  { suffix: 'add9', tones: [0, 4, 7, 2], rare: 0.8 },
  { suffix: 'm(add9)', tones: [0, 3, 7, 2], rare: 0.9 },
  { suffix: '6/9', tones: [0, 4, 7, 9, 2], rare: 0.8 },
  { suffix: '13', tones: [0, 4, 7, 10, 9], colours: [2], rare: 0.6 },
  { suffix: '7b9', tones: [0, 4, 7, 10, 1], rare: 0.6 },
  { suffix: '7#9', tones: [0, 4, 7, 10, 3], rare: 1.1 },
  { suffix: '7#5', tones: [0, 4, 8, 10], colours: [1, 3], rare: 0.8 },
  { suffix: '7b5', tones: [0, 4, 6, 10], colours: [2], rare: 1 },
  { suffix: 'maj7#5', tones: [0, 4, 8, 11], rare: 1.8 },
  { suffix: 'maj7#11', tones: [0, 4, 7, 11, 6], colours: [2, 9], rare: 1.8 },
  { suffix: '9sus4', tones: [0, 5, 7, 10, 2], colours: [9], rare: 0.8 },
  { suffix: '5', tones: [0, 7], rare: 1.1 }
];

/** What the bass says of a chord, by what it is in it. */
const BASS = { root: 1.2, third: -0.2, fifth: -0.3, seventh: -0.6, colour: -1.4, foreign: -2.4 } as const;
/** What a chord over a bass that is none of its tones pays. */
const OVER_FOREIGN = 1.7;

/** A chord on a root. */
export interface ChordRow {
  readonly root: PitchClass;
  readonly suffix: string;
  /** Bit n for pitch class n. */
  readonly pitchSet: number;
  /** By pitch class: what a beat of it costs. */
  readonly foreign: Float64Array;
  /** By pitch class: what it costs that it is never played; 0 for what is no tone of the chord. */
  readonly never: Float64Array;
  /** By pitch class: what it says for the chord that this is its bass. */
  readonly bass: Float64Array;
  readonly rare: number;
  /** It stands over a bass that is none of its tones; what the bass plays is not counted among its notes. */
  readonly isOver: boolean;
}

function costOfMissing(semitones: number, { suffix, tones }: Quality): number {
  if (semitones === 0) return NEVER.root;
  if (semitones === 3 && suffix === '7#9') return NEVER.colour;
  // A rich chord without its third is hardly that chord.
  if (semitones === 3 || semitones === 4) return NEVER.third + (tones.length > 4 ? 0.8 : 0);
  if (semitones === 7) return suffix === '5' ? NEVER.telling : NEVER.fifth;
  if (semitones >= 10) return NEVER.seventh;
  // An altered fifth, a suspended fourth or second, a sixth without which it is another chord.
  return suffix.includes('9') || suffix === '13' ? NEVER.colour : NEVER.telling;
}

function bassOf(semitones: number, { tones, colours = [] }: Quality): number {
  if (semitones === 0) return BASS.root;
  if (!tones.includes(semitones)) return colours.includes(semitones) ? BASS.colour : BASS.foreign;
  if (semitones === 3 || semitones === 4) return BASS.third;
  return semitones >= 6 && semitones <= 8 ? BASS.fifth : BASS.seventh;
}

function rowOf(quality: Quality, root: PitchClass, isOver: boolean): ChordRow {
  const [foreign, never, bass] = [0, 1, 2].map(() => new Float64Array(OCTAVE)) as [
    Float64Array,
    Float64Array,
    Float64Array
  ];
  let pitchSet = 0;
  for (let semitones = 0; semitones < OCTAVE; semitones++) {
    const pc = (root + semitones) % OCTAVE;
    const isTone = quality.tones.includes(semitones);
    if (isTone) pitchSet |= 1 << pc;
    foreign[pc] = isTone ? 0 : quality.colours?.includes(semitones) ? COLOUR : FOREIGN;
    never[pc] = isTone ? costOfMissing(semitones, quality) : 0;
    bass[pc] = isOver ? (isTone ? -Infinity : -OVER_FOREIGN) : bassOf(semitones, quality);
  }
  const { suffix, rare = 0 } = quality;
  return { root, suffix, pitchSet, foreign, never, bass, rare, isOver };
}

export const CHORD_ROWS: readonly ChordRow[] = [false, true].flatMap((isOver) =>
  QUALITIES.filter(({ isPlain }) => !isOver || isPlain).flatMap((quality) =>
    Array.from({ length: OCTAVE }, (_, root) => rowOf(quality, root, isOver))
  )
);
