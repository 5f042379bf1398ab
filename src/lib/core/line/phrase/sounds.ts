/** What every pitch is over a change, for a phrase: at home, of the scale, blue, to be avoided, chromatic. Source: docs/music-rules.md, Phrases. */
import type { ScaleChoice } from '../../approaches/choice';
import { contextOf } from '../../approaches/context';
import { modes } from '../../approaches/modes';
import { nth } from '../../base/list';
import type { PitchClass } from '../../base/units';
import type { AnalysedChange, Analysis } from '../../harmony/analysis';
import { isMinorKey, stepsOver } from '../../harmony/key';
import { nameOf, namingOf, type Naming } from '../../neck/shape';
import type { Chord } from '../../theory/chord';
import { DEGREES, type Degree } from '../../theory/degree';
import { pitchClass, semitonesUp, simpleSpelling, spell, type NoteName } from '../../theory/note';
import type { PhraseRow, PoolRule } from './styles';

export type SoundKind = 'chord' | 'penta' | 'scale' | 'blue' | 'avoid' | 'chromatic';

/** What a pitch class is as a landing. */
export type ToneRank = 'third' | 'seventh' | 'fifth' | 'root' | 'other tone' | 'sixth or ninth' | 'none';

/** The pitches over a change; lists have an entry for each pitch class. */
export interface Sounds {
  readonly change: number;
  readonly chord: Chord;
  readonly kinds: readonly SoundKind[];
  readonly ranks: readonly ToneRank[];
  readonly names: readonly NoteName[];
  /** Whether a pitch class is of the key, or of the chord: what a line may lean on. */
  readonly home: readonly boolean[];
  /** The minor third beside a major one that is blue or passing; null over chords without a major third. */
  readonly thirds: { readonly minor: number; readonly major: number } | null;
}

const PCS = Array.from({ length: 12 }, (_, pc) => pc);

/** The kinds that a rule gives, by semitones above the tonic of the key; what it says nothing about is chromatic. */
type ByStep = Partial<Record<number, SoundKind>>;

const MINOR_PENTATONIC = [0, 3, 5, 7, 10];
const MAJOR_PENTATONIC = [0, 2, 4, 7, 9];
const table = (penta: readonly number[], scale: readonly number[], blue: readonly number[] = []): ByStep =>
  Object.fromEntries([
    ...scale.map((step) => [step, 'scale']),
    ...blue.map((step) => [step, 'blue']),
    ...penta.map((step) => [step, 'penta'])
  ]) as ByStep;

const NATURAL_THIRD = 4;
const MINOR_THIRD = 3;

/** Major and minor pentatonic of the key together, with the blue notes; the natural third is out of place over IV. */
function bluesSteps(chord: Chord, tonic: number): ByStep {
  const root = semitonesUp(tonic, chord.rootPc);
  const own = table([0, 2, 5, 7, 9, 10], [4], [3, 6]);
  if (root === 5) return { ...own, [NATURAL_THIRD]: 'avoid', [MINOR_THIRD]: 'penta' };
  // Over V the ♭7 of the key is its minor third, and the key's root hangs over its third.
  return root === 7 ? { ...own, [MINOR_THIRD]: 'blue', [0]: 'scale' } : own;
}

/** The kinds of the key's steps by rule; null where the rule is one of modes. */
const KEY_STEPS: Readonly<
  Record<PoolRule, ((chord: Chord, tonic: number, isMinor: boolean, analysis: Analysis) => ByStep) | null>
> = {
  modes: null,
  'key and chord': null,
  'chord and key': null,
  blues: (chord, tonic, isMinor) => (isMinor ? table(MINOR_PENTATONIC, [2], [6]) : bluesSteps(chord, tonic)),
  'slow blues': (chord, tonic, isMinor) => {
    if (!isMinor) return bluesSteps(chord, tonic);
    const own = table(MINOR_PENTATONIC, [2, 8]);
    // The leading tone of V and the ♭7 of the key do not go together.
    const isFive = semitonesUp(tonic, chord.rootPc) === 7 && chord.tones.includes('3');
    return isFive ? { ...own, 10: 'avoid' } : own;
  },
  rock: (_, tonic, isMinor, { changes }) => {
    if (isMinor) return table(MINOR_PENTATONIC, [2, 8]);
    // Fifths alone say no third: the minor pentatonic is at home over them.
    const hasThird = changes.some(({ chord }) => chord?.tones.some((tone) => tone === '3' || tone === 'b3'));
    if (!hasThird) return table(MINOR_PENTATONIC, [2, 9], [6]);
    const hasFlatSeven = changes.some(({ chord }) => chord?.pitchClasses.includes((tonic + 10) % 12));
    return table(MAJOR_PENTATONIC, [5, hasFlatSeven ? 10 : 11]);
  },
  funk: () => table(MINOR_PENTATONIC, [2, 9])
};

const RANKS: Readonly<Record<string, ToneRank>> = { '1': 'root', '3': 'third', '5': 'fifth', '7': 'seventh' };

/** What is at home over a change: of the player's choice where there is one, else by the rule of the style. */
export function soundsOver(
  change: AnalysedChange & { readonly chord: Chord },
  analysis: Analysis,
  row: PhraseRow,
  choice: ScaleChoice | null
): Sounds {
  const { chord } = change;
  const kinds = kindsOver(change, analysis, row, choice);
  const fallback = choice ?? modesOf(change, analysis);
  const naming = namingOf(chord, fallback);
  const ranks = PCS.map((pc): ToneRank => {
    const at = chord.pitchClasses.indexOf(pc);
    if (at >= 0) {
      const tone = nth(chord.tones, at);
      if (tone === '6') return 'seventh';
      return RANKS[DEGREES[tone].slot] ?? 'other tone';
    }
    const above = semitonesUp(chord.rootPc, pc);
    return (above === 2 || above === 9) && kinds[pc] !== 'chromatic' && kinds[pc] !== 'avoid'
      ? 'sixth or ninth'
      : 'none';
  });
  const major = (chord.rootPc + NATURAL_THIRD) % 12;
  const minor = (chord.rootPc + MINOR_THIRD) % 12;
  return {
    change: change.index,
    chord,
    kinds,
    ranks,
    home: PCS.map((pc) => chord.pitchClasses.includes(pc) || stepsOver(chord, change.key).has(pc)),
    names: PCS.map((pc) => nameFor(pc, change, naming, kinds)),
    thirds: chord.tones.includes('3') ? { minor, major } : null
  };
}

/** Steps of a key as a blues or a rock player names them. */
const STEP_DEGREES: readonly Degree[] = ['1', 'b9', '9', 'b3', '3', '11', 'b5', '5', 'b13', '6', 'b7', '7'];

/** The name of a pitch: of a blue note and of a pentatonic one by the key, else by the chord; none needs a double accidental. */
function nameFor(
  pc: PitchClass,
  { chord, key }: AnalysedChange & { readonly chord: Chord },
  naming: Naming,
  kinds: readonly SoundKind[]
): NoteName {
  const isOfKey = kinds[pc] === 'blue' || kinds[pc] === 'penta';
  const isMinorThird = semitonesUp(chord.rootPc, pc) === MINOR_THIRD && chord.tones.includes('3');
  const name = isOfKey
    ? spell(key.tonic, nth(STEP_DEGREES, semitonesUp(pitchClass(key.tonic), pc)))
    : isMinorThird
      ? spell(chord.root, 'b3')
      : nameOf(pc, naming).note;
  return /##|bb/.test(name) ? simpleSpelling(name) : name;
}

function modesOf(change: AnalysedChange, analysis: Analysis): ScaleChoice | null {
  const context = contextOf(analysis, change.index);
  return context ? (modes(context)[0] ?? null) : null;
}

function kindsOver(
  change: AnalysedChange & { readonly chord: Chord },
  analysis: Analysis,
  { pool, idiom }: PhraseRow,
  choice: ScaleChoice | null
): SoundKind[] {
  const { chord, key } = change;
  const tonic = pitchClass(key.tonic);
  const steps = choice ? null : KEY_STEPS[pool];
  const own = choice
    ? byChoice(choice)
    : steps
      ? byStep(steps(chord, tonic, isMinorKey(key), analysis), tonic)
      : pool === 'modes'
        ? byChoice(modesOf(change, analysis))
        : byKeyAndChord(change, pool);
  return PCS.map((pc) => {
    if (chord.pitchClasses.includes(pc)) return 'chord';
    const kind = own.get(pc) ?? 'chromatic';
    // The fourth over a major third wants to fall.
    const above = semitonesUp(chord.rootPc, pc);
    const isFourth = above === 5 && chord.tones.includes('3');
    if (kind !== 'penta' && kind !== 'scale') return kind;
    if (isFourth) return 'avoid';
    return idiom === 'chords' || choice ? kind : (FOREIGN[above] ?? kind);
  });
}

const byStep = (steps: ByStep, tonic: number): Map<number, SoundKind> =>
  new Map(Object.entries(steps).map(([step, kind]) => [(tonic + Number(step)) % 12, kind!]));

/** What a note of the key's pentatonic is over a chord to which it is foreign, by semitones above the root: none to stay on. */
const FOREIGN: Partial<Record<number, SoundKind>> = { 1: 'avoid', 6: 'scale', 11: 'avoid' };

/** Few notes of a collection are a language of their own; more are a scale. */
const PENTATONIC = 6;

function byChoice(choice: ScaleChoice | null): Map<number, SoundKind> {
  const kinds = new Map<number, SoundKind>();
  if (!choice) return kinds;
  const isPentatonic = choice.notes.length <= PENTATONIC;
  const avoid = new Set(choice.avoid.map((degree) => DEGREES[degree].semitones));
  choice.notes.forEach((name, i) => {
    const pc = pitchClass(name);
    const degree = choice.degrees[i];
    const isAvoided = degree !== undefined && avoid.has(DEGREES[degree].semitones);
    kinds.set(pc, isAvoided ? 'avoid' : isPentatonic ? 'penta' : 'scale');
  });
  for (const pc of choice.blueNotes ?? []) kinds.set(pc, 'blue');
  return kinds;
}

/** The key with the tones of the chord; in songs of chords their own 2 and 6 before the rest. */
function byKeyAndChord(
  { chord, key }: AnalysedChange & { readonly chord: Chord },
  pool: PoolRule
): Map<number, SoundKind> {
  const steps = stepsOver(chord, key);
  const kinds = new Map<number, SoundKind>([...steps].map((pc) => [pc, 'scale']));
  if (pool === 'chord and key' && !chord.tones.includes('b3')) {
    for (const above of [2, 9]) {
      const pc = (chord.rootPc + above) % 12;
      if (steps.has(pc) || above === 2) kinds.set(pc, 'penta');
    }
  }
  return kinds;
}
