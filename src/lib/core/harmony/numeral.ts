/**
 * Numerals and functions, as facts; `romanText` makes the words. Numerals count from the tonic's major scale in both
 * modes (the third degree of a minor key is bIII), upper case for a major third, lower case for a minor one.
 */
import { type Chord } from '../theory/chord';
import { pitchClass, semitonesUp } from '../theory/note';
import { inKey, type Key, type Step } from './key';

export const FUNCTIONS = [
  'tonic',
  'pre-dominant',
  'dominant',
  'secondary dominant',
  'tritone substitute',
  'borrowed',
  'backdoor',
  'passing diminished',
  'blues I',
  'blues IV',
  'blues V',
  'outside'
] as const;

export type HarmonicFunction = (typeof FUNCTIONS)[number];

/** A step of the tonic's major scale, 1 to 7, as it is or altered. */
export interface ScaleStep {
  readonly number: number;
  readonly accidental: '' | 'b' | '#';
  /** A minor third stands on it: lower case. */
  readonly isMinor: boolean;
}

/** What a chord is in its key: "bVII7", "iiø7/V", "subV7/I". */
export interface Numeral extends ScaleStep {
  /** Its quality in short: "7", "ø7", "°7", "maj7"; extensions and alterations are left out. */
  readonly quality: string;
  /** It stands for the V a tritone away. */
  readonly isSubstitute?: true;
  /** The step that it is the V or the ii of, where that is not the tonic. */
  readonly of?: ScaleStep;
}

/** A chord in its key: its numeral and what it does there. */
export interface Reading {
  readonly numeral: Numeral;
  readonly function: HarmonicFunction;
}

const steps = (names: string): readonly Omit<ScaleStep, 'isMinor'>[] =>
  names.split(' ').map((name) => ({
    number: Number(name.at(-1)),
    accidental: name.length > 1 ? (name[0] as 'b' | '#') : ''
  }));

/** By semitones above the tonic. */
const STEPS = steps('1 b2 2 b3 3 4 #4 5 b6 6 b7 7');
/** Diminished chords that rise are named by the step they rise from. */
const RISING_STEPS = steps('1 #1 2 #2 3 4 #4 5 #5 6 #6 7');

const ROMAN = ['I', 'II', 'III', 'IV', 'V', 'VI', 'VII'] as const;

/** "bVII", "ii": a step without what is built on it. */
export function stepText({ number, accidental, isMinor }: ScaleStep): string {
  const letters = ROMAN[number - 1]!;
  return accidental + (isMinor ? letters.toLowerCase() : letters);
}

/** A numeral in ASCII: "bVII7", "iiø7/V", "subV7/bIII". */
export function romanText(numeral: Numeral): string {
  const { quality, isSubstitute, of } = numeral;
  return `${isSubstitute ? 'sub' : ''}${stepText(numeral)}${quality}${of ? `/${stepText(of)}` : ''}`;
}

/** Whether a chord is one of some steps, written as "IV", "ii", "bVII"; what it is the V of does not count. */
export function isStep(numeral: Numeral | null, ...names: readonly string[]): boolean {
  return numeral !== null && !numeral.isSubstitute && names.includes(stepText(numeral));
}

const DIATONIC_FUNCTION: Readonly<Record<Key['mode'], Readonly<Record<number, HarmonicFunction>>>> = {
  major: {
    0: 'tonic',
    2: 'pre-dominant',
    4: 'tonic',
    5: 'pre-dominant',
    7: 'dominant',
    9: 'tonic',
    11: 'dominant'
  },
  minor: {
    0: 'tonic',
    2: 'pre-dominant',
    3: 'tonic',
    5: 'pre-dominant',
    7: 'dominant',
    8: 'pre-dominant',
    10: 'dominant',
    11: 'dominant'
  }
};

/** What follows the numeral: the chord's quality in short; extensions and alterations are left out. */
function qualitySuffix(chord: Chord): string {
  const has = (tone: (typeof chord.tones)[number]) => chord.tones.includes(tone);
  switch (chord.family) {
    case 'half-diminished':
      return 'ø7';
    case 'diminished':
      return has('bb7') ? '°7' : '°';
    case 'augmented':
      return has('7') ? '+maj7' : '+';
    case 'dominant':
      return has('3') ? '7' : '7sus4';
    case 'suspended':
      return has('11') ? 'sus4' : 'sus2';
    case 'power':
      return '5';
    default:
      if (has('7')) return 'maj7';
      if (has('b7')) return '7';
      return has('6') ? '6' : '';
  }
}

function plainNumeral(chord: Chord, key: Key, names = STEPS): Numeral {
  const step = names[semitonesUp(pitchClass(key.tonic), chord.rootPc)]!;
  return { ...step, isMinor: chord.tones.includes('b3'), quality: qualitySuffix(chord) };
}

/** A V (or its substitute, or the ii of it) that points at a step. */
const pointing = (number: 2 | 5, quality: string, of?: ScaleStep): Numeral => ({
  number,
  accidental: '',
  isMinor: number === 2,
  quality,
  ...(of ? { of } : {})
});
const substituteOf = (quality: string, of: ScaleStep): Numeral => ({
  ...pointing(5, quality, of),
  isSubstitute: true
});

/** Steps of a key that can be a goal, in semitones above the tonic, and those whose chord is minor. */
const GOALS: Readonly<
  Record<Key['mode'], { readonly all: readonly number[]; readonly minor: readonly number[] }>
> = {
  major: { all: [0, 2, 4, 5, 7, 9], minor: [2, 4, 9] },
  minor: { all: [0, 3, 5, 7, 8, 10], minor: [0, 5] }
};

/** A goal as its diatonic chord is written; null where the key has none there. */
function goalStep(distance: number, key: Key): ScaleStep | null {
  const { all, minor } = GOALS[key.mode];
  return all.includes(distance) ? { ...STEPS[distance]!, isMinor: minor.includes(distance) } : null;
}

/** Whether the tonic and fourth-degree chords of a tune are dominants at rest, as in a blues. */
export function isBluesKey(steps: readonly Step[], key: Key): boolean {
  const tonic = pitchClass(key.tonic);
  const dominantOn = (distance: number) =>
    steps.some((s) => semitonesUp(tonic, s.root) === distance && s.chord.family === 'dominant');
  const restsElsewhere = steps.some((s) => semitonesUp(tonic, s.root) === 0 && s.chord.family === 'major');
  return key.mode === 'major' && dominantOn(0) && dominantOn(5) && !restsElsewhere;
}

interface NumeralContext {
  readonly key: Key;
  readonly blues: boolean;
  readonly previous?: Step | undefined;
  readonly next?: Step | undefined;
}

/** The numeral and function of a harmonic step in its key. */
export function numeralOf(step: Step, context: NumeralContext): Reading {
  const family = step.chord.family;
  if (family === 'dominant') return dominantNumeral(step, context);
  if (family === 'diminished') return diminishedNumeral(step, context);
  return restingNumeral(step, context);
}

function dominantNumeral(step: Step, { key, blues, previous, next }: NumeralContext): Reading {
  const tonic = pitchClass(key.tonic);
  const distance = semitonesUp(tonic, step.root);
  const numeral = plainNumeral(step.chord, key);
  const { quality } = numeral;
  const toNext = next ? semitonesUp(step.root, next.root) : null;
  const bluesFunction = ({ 0: 'blues I', 5: 'blues IV', 7: 'blues V' } as const)[distance];
  if (blues && bluesFunction) return { numeral, function: bluesFunction };
  if (distance === 7) return { numeral: pointing(5, quality), function: 'dominant' };
  // A dominant that falls a semitone stands for the one that would fall a fifth.
  if (toNext === 11) {
    const goal = goalStep((distance + 11) % 12, key);
    if (goal) return { numeral: substituteOf(quality, goal), function: 'tritone substitute' };
  }
  const goal = goalStep((distance + 5) % 12, key);
  const backHome = next && next.root === tonic && next.chord.family !== 'dominant';
  if (distance === 10 && backHome) return { numeral, function: 'backdoor' };
  const fromFour = previous && semitonesUp(tonic, previous.root) === 5 && previous.chord.family === 'minor';
  if (distance === 10 && fromFour && toNext !== 5) return { numeral, function: 'backdoor' };
  if (distance === 10 && key.mode === 'minor' && toNext !== 5) return { numeral, function: 'dominant' };
  if (goal && (toNext === 5 || pointsDown(distance, key))) {
    const target = next && toNext === 5 ? asItComes(goal, next.chord) : goal;
    return { numeral: pointing(5, quality, target), function: 'secondary dominant' };
  }
  if (distance === 1) {
    const home: ScaleStep = { number: 1, accidental: '', isMinor: key.mode === 'minor' };
    return { numeral: substituteOf(quality, home), function: 'tritone substitute' };
  }
  if (distance === 8) {
    return {
      numeral: substituteOf(quality, { number: 5, accidental: '', isMinor: false }),
      function: 'tritone substitute'
    };
  }
  if (toNext === 5) return { numeral, function: 'secondary dominant' };
  return { numeral, function: [10, 5, 3].includes(distance) ? 'borrowed' : 'outside' };
}

/** Dominants on a degree of the scale point a fifth down even where they do not go there. */
function pointsDown(distance: number, key: Key): boolean {
  const roots: Readonly<Record<Key['mode'], readonly number[]>> = {
    major: [2, 4, 9, 11],
    minor: [2, 3]
  };
  return roots[key.mode].includes(distance);
}

/** The goal as it really comes: V7/ii that lands on a major chord is V7/II. */
function asItComes(goal: ScaleStep, { family }: Chord): ScaleStep {
  if (family === 'minor' || family === 'half-diminished') return { ...goal, isMinor: true };
  return family === 'major' ? { ...goal, isMinor: false } : goal;
}

function diminishedNumeral(step: Step, { key, previous, next }: NumeralContext): Reading {
  const tonic = pitchClass(key.tonic);
  const distance = semitonesUp(tonic, step.root);
  const rises = next && semitonesUp(step.root, next.root) === 1;
  if (distance === 11 && rises) return { numeral: plainNumeral(step.chord, key), function: 'dominant' };
  const falls = next && semitonesUp(step.root, next.root) === 11;
  const stepwise = previous && [1, 11].includes(semitonesUp(previous.root, step.root));
  const sameRoot = (next && next.root === step.root) || (previous && previous.root === step.root);
  const numeral = plainNumeral(step.chord, key, rises ? RISING_STEPS : STEPS);
  const passes = rises || falls || stepwise || sameRoot || distance !== 11;
  return { numeral, function: passes ? 'passing diminished' : 'dominant' };
}

function restingNumeral(step: Step, { key, next }: NumeralContext): Reading {
  const tonic = pitchClass(key.tonic);
  const distance = semitonesUp(tonic, step.root);
  const numeral = plainNumeral(step.chord, key);
  const { family } = step.chord;
  const diatonic = DIATONIC_FUNCTION[key.mode][distance];
  if (inKey(step.chord, key) && diatonic) return { numeral, function: diatonic };
  // The ii of a secondary dominant is named with it.
  const leadsToFive =
    next &&
    (family === 'minor' || family === 'half-diminished') &&
    next.chord.family === 'dominant' &&
    semitonesUp(step.root, next.root) === 5;
  const goal = leadsToFive ? goalStep((distance + 10) % 12, key) : null;
  if (goal && distance !== 2) {
    return { numeral: pointing(2, numeral.quality, goal), function: 'pre-dominant' };
  }
  if (distance === 2 && leadsToFive) return { numeral, function: 'pre-dominant' };
  if (distance === 0) return { numeral, function: 'tonic' };
  if (distance === 7 && (family === 'augmented' || family === 'suspended' || family === 'major')) {
    return { numeral, function: 'dominant' };
  }
  const parallel: Key = { tonic: key.tonic, mode: key.mode === 'major' ? 'minor' : 'major' };
  const isNeapolitan = distance === 1 && family === 'major';
  if (inKey(step.chord, parallel) || isNeapolitan || [3, 5, 8, 10].includes(distance)) {
    return { numeral, function: 'borrowed' };
  }
  return { numeral, function: diatonic ?? 'outside' };
}
