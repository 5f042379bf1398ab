/**
 * Numerals and functions, as facts; `romanText` makes the words. Numerals count from the tonic's major scale in both
 * modes (the third degree of a minor key is bIII), upper case for a major third, lower case for a minor one.
 */
import { nth } from '../base/list';
import { type Chord } from '../theory/chord';
import { pitchClass, semitonesUp } from '../theory/note';
import { isFive, isTriadFive, isTwo } from './heard';
import { inKey, isMinorKey, isModal, lenderOf, type Key } from './key';
import type { Step, Surroundings } from './steps';
import { type Mode } from '../theory/mode';

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
  const letters = nth(ROMAN, number - 1);
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

/** What the chord on each step does, by semitones above the tonic. */
const functions = (table: Partial<Record<HarmonicFunction, readonly number[]>>) =>
  Object.fromEntries(
    Object.entries(table).flatMap(([name, steps]) => steps.map((step) => [step, name]))
  ) as Readonly<Record<number, HarmonicFunction>>;

const DIATONIC_FUNCTION: Readonly<Record<Mode, Readonly<Record<number, HarmonicFunction>>>> = {
  major: functions({ tonic: [0, 4, 9], 'pre-dominant': [2, 5], dominant: [7, 11] }),
  minor: functions({ tonic: [0, 3], 'pre-dominant': [2, 5, 8], dominant: [7, 10, 11] }),
  dorian: functions({ tonic: [0, 3], 'pre-dominant': [2, 5, 9], dominant: [7, 10] }),
  phrygian: functions({ tonic: [0, 3], 'pre-dominant': [5, 8], dominant: [1, 7, 10] }),
  lydian: functions({ tonic: [0, 4, 9], 'pre-dominant': [2, 6], dominant: [7, 11] }),
  mixolydian: functions({ tonic: [0, 4, 9], 'pre-dominant': [2, 5], dominant: [7, 10] })
};

/** What follows the numeral: the symbol's own quality in short; extensions and alterations are left out. */
function qualitySuffix({ family, tones }: Chord): string {
  const has = (...names: (typeof tones)[number][]) => names.some((tone) => tones.includes(tone));
  switch (family) {
    case 'half-diminished':
      return 'ø7';
    case 'diminished':
      return has('bb7') ? '°7' : '°';
    case 'augmented':
      return has('7') ? 'maj7' : '+';
    case 'dominant':
      if (has('3')) return '7';
      return has('11') ? '7sus4' : has('9') ? '7sus2' : '7';
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
  const step = nth(names, semitonesUp(pitchClass(key.tonic), chord.rootPc));
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
const GOALS: Readonly<Record<Mode, { readonly all: readonly number[]; readonly minor: readonly number[] }>> =
  {
    major: { all: [0, 2, 4, 5, 7, 9], minor: [2, 4, 9] },
    minor: { all: [0, 3, 5, 7, 8, 10], minor: [0, 5] },
    dorian: { all: [0, 2, 3, 5, 7, 10], minor: [0, 2, 7] },
    phrygian: { all: [0, 1, 3, 5, 8, 10], minor: [0, 5, 10] },
    lydian: { all: [0, 2, 4, 7, 9, 11], minor: [4, 9, 11] },
    mixolydian: { all: [0, 2, 5, 7, 9, 10], minor: [2, 7, 9] }
  };

/** A goal as its diatonic chord is written; null where the key has none there. */
function goalStep(distance: number, key: Key): ScaleStep | null {
  const { all, minor } = GOALS[key.mode];
  return all.includes(distance) ? { ...nth(STEPS, distance), isMinor: minor.includes(distance) } : null;
}

/** Whether the I, and the IV, of a tune are dominants at rest, as in a blues; the IV may be a triad where the tune begins on its I7. */
export function isBluesKey(steps: readonly Step[], key: Key): boolean {
  const tonic = pitchClass(key.tonic);
  const on = (distance: number) => steps.filter(({ root }) => semitonesUp(tonic, root) === distance);
  const hasDominant = (distance: number) => on(distance).some((step) => step.isFive);
  const restsElsewhere = on(0).some(({ chord }) => chord.family === 'major');
  const beginsOnIt = steps[0]?.root === tonic && steps[0].isFive && on(5).length > 0;
  return !isMinorKey(key) && !restsElsewhere && hasDominant(0) && (hasDominant(5) || beginsOnIt);
}

/** The place of a chord among the others, and in a key. */
interface Place extends Surroundings {
  readonly key: Key;
  readonly blues: boolean;
}

/** A chord with its root and its place. */
interface Placed extends Place {
  readonly chord: Chord;
  /** Semitones above the tonic. */
  readonly distance: number;
  /** Semitones up to the next other root; null where none follows. */
  readonly toNext: number | null;
}

/** The numeral and function of a chord, as it is heard, in its key. */
export function numeralOf(chord: Chord, place: Place): Reading {
  const placed: Placed = {
    ...place,
    chord,
    distance: semitonesUp(pitchClass(place.key.tonic), chord.rootPc),
    toNext: place.onward ? semitonesUp(chord.rootPc, place.onward.root) : null
  };
  if (isFive(chord)) return dominantNumeral(placed);
  if (chord.family === 'diminished') return diminishedNumeral(placed);
  return (isTriadFive(chord) && leadingTriad(placed)) || restingNumeral(placed);
}

const BLUES_FUNCTIONS: Readonly<Record<number, HarmonicFunction>> = {
  0: 'blues I',
  5: 'blues IV',
  7: 'blues V'
};

function dominantNumeral(placed: Placed): Reading {
  const { chord, key, blues, previous, onward, distance, toNext, standsFor } = placed;
  const numeral = plainNumeral(chord, key);
  const { quality } = numeral;
  const isLedIn = previous?.isTwo && previous.up === 5;
  // Led in by its ii, a V7 of the chord to come is that, also where it stands on a step of the blues.
  const leadsInBlues = isLedIn && toNext === 5 && distance !== 7;
  const bluesFunction = BLUES_FUNCTIONS[distance];
  if (blues && bluesFunction && !leadsInBlues) return { numeral, function: bluesFunction };
  if (isModal(key) && distance !== 7 && inKey(chord, key) && toNext !== 11) {
    return { numeral, function: DIATONIC_FUNCTION[key.mode][distance] ?? 'outside' };
  }
  if (distance === 7) return { numeral: pointing(5, quality), function: 'dominant' };
  // Before a substitute it is the dominant of what that stands for.
  if (standsFor !== undefined) {
    const below = semitonesUp(pitchClass(key.tonic), standsFor);
    const goal = goalStep(below, key) ?? { ...nth(STEPS, below), isMinor: false };
    return {
      numeral: pointing(5, quality, { ...goal, isMinor: false }),
      function: 'secondary dominant'
    };
  }
  // A dominant that falls a semitone stands for the one that would fall a fifth.
  if (toNext === 11 && onward) {
    const below = (distance + 11) % 12;
    const goal = goalStep(below, key) ?? { ...nth(STEPS, below), isMinor: false };
    return { numeral: substituteOf(quality, asItComes(goal, onward.chord)), function: 'tritone substitute' };
  }
  const goal = goalStep((distance + 5) % 12, key);
  const isMajorKey = !isMinorKey(key);
  const backHome = onward && toNext === 2 && (blues || !onward.isFive);
  if (distance === 10 && backHome && isMajorKey) return { numeral, function: 'backdoor' };
  const fromFour = previous?.chord.family === 'minor' && previous.up === 5;
  if (distance === 10 && fromFour && toNext !== 5) return { numeral, function: 'backdoor' };
  if (distance === 10 && !isMajorKey && toNext !== 5) return { numeral, function: 'dominant' };
  if (goal && (toNext === 5 || pointsDown(distance, key))) {
    const target = onward && toNext === 5 ? asItComes(goal, onward.chord) : goal;
    return { numeral: pointing(5, quality, target), function: 'secondary dominant' };
  }
  if (distance === 1) {
    const home: ScaleStep = { number: 1, accidental: '', isMinor: isMinorKey(key) };
    return { numeral: substituteOf(quality, home), function: 'tritone substitute' };
  }
  if (distance === 8) {
    return {
      numeral: substituteOf(quality, { number: 5, accidental: '', isMinor: false }),
      function: 'tritone substitute'
    };
  }
  if (distance === 0 && isMajorKey) return { numeral, function: 'tonic' };
  if (toNext === 5) return { numeral, function: 'secondary dominant' };
  return { numeral, function: [10, 5, 3].includes(distance) ? 'borrowed' : 'outside' };
}

/** Dominants on a degree of the scale point a fifth down even where they do not go there. */
function pointsDown(distance: number, key: Key): boolean {
  const roots = isMinorKey(key) ? [2, 3] : [2, 4, 9, 11];
  return roots.includes(distance);
}

/**
 * A triad that is the V of what follows: a fifth above it, with a leading tone that the key does not have. One that the key has, or
 * borrows on its way to a major chord (IV to ♭VII), is what it is there.
 */
function leadingTriad({ chord, key, next, onward, distance, toNext }: Placed): Reading | null {
  // Over a held root only a seventh leads on.
  if (next && next.root === chord.rootPc && !next.isFive) return null;
  if (distance === 7 || toNext !== 5 || !onward || inKey(chord, key)) return null;
  const goal = goalStep((distance + 5) % 12, key);
  if (!goal || chord.family === 'suspended') return null;
  const target = asItComes(goal, onward.chord);
  const lender = lenderOf(chord, key);
  const isBorrowed = lender !== null && lender.mode !== 'major';
  if (isBorrowed && !target.isMinor) return null;
  const { quality } = plainNumeral(chord, key);
  return { numeral: pointing(5, quality, target), function: 'secondary dominant' };
}

/** The goal as it really comes: V7/ii that lands on a major chord is V7/II. */
function asItComes(goal: ScaleStep, { family }: Chord): ScaleStep {
  if (family === 'minor' || family === 'half-diminished') return { ...goal, isMinor: true };
  return family === 'major' ? { ...goal, isMinor: false } : goal;
}

function diminishedNumeral({ chord, key, previous, next, distance }: Placed): Reading {
  const rises = next && semitonesUp(chord.rootPc, next.root) === 1;
  if (distance === 11 && rises) return { numeral: plainNumeral(chord, key), function: 'dominant' };
  const falls = next && semitonesUp(chord.rootPc, next.root) === 11;
  const stepwise = previous && [1, 11].includes(semitonesUp(previous.root, chord.rootPc));
  const sameRoot = (next && next.root === chord.rootPc) || (previous && previous.root === chord.rootPc);
  const numeral = plainNumeral(chord, key, rises ? RISING_STEPS : STEPS);
  if (distance === 2 && isMinorKey(key) && !rises && inKey(chord, key))
    return { numeral, function: 'pre-dominant' };
  const passes = rises || falls || stepwise || sameRoot || distance !== 11;
  return { numeral, function: passes ? 'passing diminished' : 'dominant' };
}

function restingNumeral({ chord, key, blues, onward, distance, toNext }: Placed): Reading {
  const numeral = plainNumeral(chord, key);
  const { family } = chord;
  const diatonic = DIATONIC_FUNCTION[key.mode][distance];
  const leadsToFive = isTwo(chord) && onward?.isFive && toNext === 5;
  // In a blues the minor chord on V is the ii of the V7 of IV.
  const isInside = inKey(chord, key) && !(blues && leadsToFive && distance === 7);
  if (isInside && diatonic) return { numeral, function: diatonic };
  // The ii of a secondary dominant is named with it.
  const goal = leadsToFive ? goalStep((distance + 10) % 12, key) : null;
  if (goal && distance !== 2) {
    return { numeral: pointing(2, numeral.quality, goal), function: 'pre-dominant' };
  }
  if (distance === 2 && leadsToFive) return { numeral, function: 'pre-dominant' };
  if (distance === 0) return { numeral, function: 'tonic' };
  if (distance === 7 && (family === 'augmented' || family === 'suspended' || family === 'major')) {
    return { numeral, function: 'dominant' };
  }
  const isNeapolitan = distance === 1 && family === 'major';
  if (lenderOf(chord, key) || isNeapolitan || [3, 5, 8, 10].includes(distance)) {
    return { numeral, function: 'borrowed' };
  }
  return { numeral, function: diatonic ?? 'outside' };
}
