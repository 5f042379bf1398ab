/**
 * Roman numerals and functions. Numerals count from the tonic's major scale in both modes (the third degree of
 * a minor key is bIII), upper case for a major third, lower case for a minor one.
 */
import { chordFamily, type Chord } from '../theory/chord';
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

export interface Numeral {
  readonly roman: string;
  readonly function: HarmonicFunction;
}

const NUMERALS = ['I', 'bII', 'II', 'bIII', 'III', 'IV', '#IV', 'V', 'bVI', 'VI', 'bVII', 'VII'] as const;
/** Diminished chords that rise are named by the degree they rise from. */
const RISING_NUMERALS = ['I', '#I', 'II', '#II', 'III', 'IV', '#IV', 'V', '#V', 'VI', '#VI', 'VII'] as const;

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
  switch (chordFamily(chord)) {
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

function plainRoman(chord: Chord, key: Key, names: readonly string[] = NUMERALS): string {
  const name = names[semitonesUp(pitchClass(key.tonic), pitchClass(chord.root))]!;
  const minor = chord.tones.includes('b3');
  const cased = minor ? name.replace(/[IV]+/, (letters) => letters.toLowerCase()) : name;
  return cased + qualitySuffix(chord);
}

/** The numeral of a goal, in the case its diatonic chord has: "ii", "V", "vi". */
function goalNumeral(distance: number, key: Key): string | null {
  const lower: Readonly<Record<Key['mode'], readonly number[]>> = { major: [2, 4, 9], minor: [0, 5] };
  const diatonic: Readonly<Record<Key['mode'], readonly number[]>> = {
    major: [0, 2, 4, 5, 7, 9],
    minor: [0, 3, 5, 7, 8, 10]
  };
  if (!diatonic[key.mode].includes(distance)) return null;
  const name = NUMERALS[distance]!;
  return lower[key.mode].includes(distance) ? name.toLowerCase() : name;
}

/** Whether the tonic and fourth-degree chords of a tune are dominants at rest, as in a blues. */
export function isBluesKey(steps: readonly Step[], key: Key): boolean {
  const tonic = pitchClass(key.tonic);
  const dominantOn = (distance: number) =>
    steps.some((s) => semitonesUp(tonic, s.root) === distance && chordFamily(s.chord) === 'dominant');
  const restsElsewhere = steps.some(
    (s) => semitonesUp(tonic, s.root) === 0 && chordFamily(s.chord) === 'major'
  );
  return key.mode === 'major' && dominantOn(0) && dominantOn(5) && !restsElsewhere;
}

/** A numeral as a player reads it: true accidentals before the degree, "subV7/bIII" as "subV7/♭III". */
export function prettyNumeral(roman: string): string {
  return roman.replaceAll(/(?<![a-z])b(?=[IViv])/g, '♭').replaceAll('#', '♯');
}

interface NumeralContext {
  readonly key: Key;
  readonly blues: boolean;
  readonly previous?: Step | undefined;
  readonly next?: Step | undefined;
}

/** The numeral and function of a harmonic step in its key. */
export function numeralOf(step: Step, context: NumeralContext): Numeral {
  const family = chordFamily(step.chord);
  if (family === 'dominant') return dominantNumeral(step, context);
  if (family === 'diminished') return diminishedNumeral(step, context);
  return restingNumeral(step, context);
}

function dominantNumeral(step: Step, { key, blues, previous, next }: NumeralContext): Numeral {
  const tonic = pitchClass(key.tonic);
  const distance = semitonesUp(tonic, step.root);
  const roman = plainRoman(step.chord, key);
  const quality = qualitySuffix(step.chord);
  const toNext = next ? semitonesUp(step.root, next.root) : null;
  const bluesFunction = ({ 0: 'blues I', 5: 'blues IV', 7: 'blues V' } as const)[distance];
  if (blues && bluesFunction) return { roman, function: bluesFunction };
  if (distance === 7) return { roman: `V${quality}`, function: 'dominant' };
  // A dominant that falls a semitone stands for the one that would fall a fifth.
  if (toNext === 11) {
    const goal = goalNumeral((distance + 11) % 12, key);
    if (goal) return { roman: `subV${quality}/${goal}`, function: 'tritone substitute' };
  }
  const goal = goalNumeral((distance + 5) % 12, key);
  const backHome = next && next.root === tonic && chordFamily(next.chord) !== 'dominant';
  if (distance === 10 && backHome) return { roman, function: 'backdoor' };
  const fromFour =
    previous && semitonesUp(tonic, previous.root) === 5 && chordFamily(previous.chord) === 'minor';
  if (distance === 10 && fromFour && toNext !== 5) return { roman, function: 'backdoor' };
  if (distance === 10 && key.mode === 'minor' && toNext !== 5) return { roman, function: 'dominant' };
  if (goal && (toNext === 5 || inKeyGoal(distance, key))) {
    const target = next && toNext === 5 ? goalCase(goal, next.chord) : goal;
    return { roman: `V${quality}/${target}`, function: 'secondary dominant' };
  }
  if (distance === 1)
    return { roman: `subV${quality}/${key.mode === 'minor' ? 'i' : 'I'}`, function: 'tritone substitute' };
  if (distance === 8) return { roman: `subV${quality}/V`, function: 'tritone substitute' };
  if (toNext === 5) return { roman, function: 'secondary dominant' };
  return { roman, function: distance === 10 || distance === 5 || distance === 3 ? 'borrowed' : 'outside' };
}

/** Dominants on a degree of the scale point a fifth down even where they do not go there. */
function inKeyGoal(distance: number, key: Key): boolean {
  const roots: Readonly<Record<Key['mode'], readonly number[]>> = {
    major: [2, 4, 9, 11],
    minor: [2, 3]
  };
  return roots[key.mode].includes(distance);
}

/** The goal as it really comes: V7/ii that lands on a major chord is V7/II. */
function goalCase(goal: string, chord: Chord): string {
  const family = chordFamily(chord);
  if (family === 'minor' || family === 'half-diminished') return goal.toLowerCase();
  return family === 'major' ? goal.toUpperCase().replace('B', 'b') : goal;
}

function diminishedNumeral(step: Step, { key, previous, next }: NumeralContext): Numeral {
  const tonic = pitchClass(key.tonic);
  const distance = semitonesUp(tonic, step.root);
  const rises = next && semitonesUp(step.root, next.root) === 1;
  if (distance === 11 && rises) return { roman: plainRoman(step.chord, key), function: 'dominant' };
  const falls = next && semitonesUp(step.root, next.root) === 11;
  const steps = previous && [1, 11].includes(semitonesUp(previous.root, step.root));
  const sameRoot = (next && next.root === step.root) || (previous && previous.root === step.root);
  const roman = plainRoman(step.chord, key, rises ? RISING_NUMERALS : NUMERALS);
  if (rises || falls || steps || sameRoot || distance !== 11)
    return { roman, function: 'passing diminished' };
  return { roman, function: 'dominant' };
}

function restingNumeral(step: Step, { key, next }: NumeralContext): Numeral {
  const tonic = pitchClass(key.tonic);
  const distance = semitonesUp(tonic, step.root);
  const roman = plainRoman(step.chord, key);
  const family = chordFamily(step.chord);
  const diatonic = DIATONIC_FUNCTION[key.mode][distance];
  if (inKey(step.chord, key) && diatonic) return { roman, function: diatonic };
  // The ii of a secondary dominant is named with it.
  const leadsToFive =
    next &&
    (family === 'minor' || family === 'half-diminished') &&
    chordFamily(next.chord) === 'dominant' &&
    semitonesUp(step.root, next.root) === 5;
  const goal = leadsToFive ? goalNumeral((distance + 10) % 12, key) : null;
  if (goal && distance !== 2) {
    return { roman: `ii${qualitySuffix(step.chord)}/${goal}`, function: 'pre-dominant' };
  }
  if (distance === 2 && leadsToFive) return { roman, function: 'pre-dominant' };
  if (distance === 0) return { roman, function: 'tonic' };
  if (distance === 7 && (family === 'augmented' || family === 'suspended' || family === 'major')) {
    return { roman, function: 'dominant' };
  }
  const parallel: Key = { tonic: key.tonic, mode: key.mode === 'major' ? 'minor' : 'major' };
  const isNeapolitan = distance === 1 && family === 'major';
  if (inKey(step.chord, parallel) || isNeapolitan || [3, 5, 8, 10].includes(distance)) {
    return { roman, function: 'borrowed' };
  }
  return { roman, function: diatonic ?? 'outside' };
}
