/**
 * Judging a collection on a chord: what it covers, lacks, adds and clashes with. Source: docs/music-rules.md, Judging a
 * collection on a chord.
 */
import { nth } from '../base/list';
import { DEGREES, degreeOf, type Degree } from '../theory/degree';
import { type Chord } from '../theory/chord';
import { pitchClass, semitonesUp, type PitchClass } from '../theory/note';

export interface Judgement {
  /** The degree of each pitch class of the collection, in the order given. */
  readonly degrees: readonly Degree[];
  readonly covers: readonly Degree[];
  readonly lacks: readonly Degree[];
  readonly tensions: readonly Degree[];
  readonly avoid: readonly Degree[];
  readonly contradicts: readonly Degree[];
  /** Passing colours of the blues: b3 over a major third, b5. */
  readonly blue: readonly ('b3' | 'b5')[];
}

/** How a tone that is not a tone of the chord sounds on it. */
export type OutsideRole = 'tension' | 'avoid' | 'contradicts' | 'blue';

export interface JudgeContext {
  /** The chord is a dominant that goes to a minor chord. */
  readonly minorGoal?: boolean;
  /** Pitch classes that the collection itself counts as passing blue notes. */
  readonly blueNotes?: readonly PitchClass[];
  /** The chord leads as a dominant does: a major seventh denies even a triad. */
  readonly isLeading?: boolean;
  /** A 7♯9 at rest: its ♯9 is the blue third, and the natural 9 denies nothing. */
  readonly isBlueTonic?: boolean;
  /** The collection has a ♭9 and a 3: what lies between them is its ♯9 and no blue note. */
  readonly hasSharpNine?: boolean;
}

/** Symbols that say an altered tone allow these as well, even where the tone itself is not written. */
const ALLOWED_BY: Readonly<Partial<Record<Degree, readonly Degree[]>>> = {
  b9: ['b9', '#9'],
  '#9': ['b9', '#9'],
  '#11': ['#11', 'b5'],
  b13: ['b13', '#5']
};

/** Whether a symbol, or a minor goal, allows an altered tension on a dominant chord. */
function allowsAltered(chord: Chord, degree: Degree, minorGoal: boolean): boolean {
  const siblings = ALLOWED_BY[degree];
  if (!siblings) return false;
  // A triad can lead to a minor goal as well as a seventh can.
  if (minorGoal) return true;
  return chord.family === 'dominant' && siblings.some((sibling) => chord.tones.includes(sibling));
}

/** A tone denies what the symbol says. */
function denies(chord: Chord, semitones: number): boolean {
  const has = (...tones: Degree[]) => tones.some((tone) => chord.tones.includes(tone));
  switch (semitones) {
    case 4:
      return has('b3');
    case 11:
      return has('b7');
    case 10:
      return has('7');
    case 7:
      return !has('5') && has('b5', '#5');
    case 2:
      return !has('9') && has('b9', '#9');
    case 9:
      return !has('13', '6', 'bb7') && (has('b13') || (has('b9', '#9') && has('b5') && has('#5')));
    default:
      return false;
  }
}

/** What one of the twelve tones above a root is on a chord. */
interface ToneFacts {
  readonly degree: Degree;
  readonly isChordTone: boolean;
  readonly role: OutsideRole;
  /** Said by the symbol or the goal outright, so that a blues scale cannot make a passing note of it. */
  readonly isSettled: boolean;
}

function factsOf(chord: Chord, semitones: number, minorGoal: boolean): ToneFacts {
  const degree = degreeOf(semitones, chord.tones);
  const isChordTone = chord.tones.includes(degree);
  const facts = (role: OutsideRole, isSettled: boolean) => ({ degree, isChordTone, role, isSettled });
  if (denies(chord, semitones)) return facts('contradicts', true);
  if (allowsAltered(chord, degree, minorGoal)) return facts('tension', true);
  if (semitones === 3 && chord.tones.includes('3')) return facts('blue', false);
  const aboveChordTone = chord.tones.some((tone) => (DEGREES[tone].semitones + 1) % 12 === semitones);
  // A colour that everyone hears as sweet: the ♭7 passes over a minor sixth chord.
  const isSweet = semitones === 10 && chord.family === 'minor' && chord.tones.includes('6');
  return facts(aboveChordTone && !isSweet ? 'avoid' : 'tension', false);
}

/** The twelve tones on a chord, worked out once: [without, with] a minor goal. */
const tables = new WeakMap<Chord, [readonly ToneFacts[], readonly ToneFacts[]]>();

function toneTable(chord: Chord, minorGoal: boolean): readonly ToneFacts[] {
  let both = tables.get(chord);
  if (!both) {
    const table = (goal: boolean) =>
      Array.from({ length: 12 }, (_, semitones) => factsOf(chord, semitones, goal));
    both = [table(false), table(true)];
    tables.set(chord, both);
  }
  return both[minorGoal ? 1 : 0];
}

/** The role of a tone outside the chord, by semitones (0–11) above the root. */
export function outsideRole(chord: Chord, semitones: number, context: JudgeContext = {}): OutsideRole {
  const { role, isSettled } = nth(toneTable(chord, context.minorGoal ?? false), semitones);
  if (semitones === 11 && context.isLeading) return 'contradicts';
  if (semitones === 2 && context.isBlueTonic) return 'tension';
  if (role === 'blue' && context.hasSharpNine) return 'tension';
  if (isSettled || !context.blueNotes || (semitones !== 3 && semitones !== 6)) return role;
  const pc = (pitchClass(chord.root) + semitones) % 12;
  return context.blueNotes.includes(pc) ? 'blue' : role;
}

/** Judges a collection of pitch classes on a chord. */
export function judge(
  chord: Chord,
  collection: readonly PitchClass[],
  context: JudgeContext = {}
): Judgement {
  const root = pitchClass(chord.root);
  const table = toneTable(chord, context.minorGoal ?? false);
  const byRole: Record<OutsideRole, Degree[]> = { tension: [], avoid: [], contradicts: [], blue: [] };
  let held = 0;
  const degrees = collection.map((pc) => {
    const semitones = semitonesUp(root, pc);
    held |= 1 << semitones;
    const { degree, isChordTone } = nth(table, semitones);
    if (!isChordTone) byRole[outsideRole(chord, semitones, context)].push(degree);
    return degree;
  });
  const isHeld = (tone: Degree) => (held & (1 << DEGREES[tone].semitones)) !== 0;
  return {
    degrees,
    covers: chord.tones.filter(isHeld),
    lacks: chord.tones.filter((tone) => !isHeld(tone)),
    tensions: byRole.tension,
    avoid: byRole.avoid,
    contradicts: byRole.contradicts,
    blue: byRole.blue.map((degree) => (DEGREES[degree].semitones === 3 ? 'b3' : 'b5'))
  };
}
