/** A scale choice: a collection that an approach proposes for a change, with its reasons. */
import { sure } from '../base/list';
import { DEGREES, type Degree } from '../theory/degree';
import { pitchClass, semitonesUp } from '../theory/note';
import type { Collection } from './collection';
import { isStep } from '../harmony/numeral';
import { isBlueTonic, type ChangeContext } from './context';
import { judge, type JudgeContext, type Judgement } from './judge';
import { reason } from './reason';

export interface ScaleChoice extends Judgement, Collection {
  readonly approach: string;
  /** A tone to pass over softly: the 13 of a ii minor seventh. */
  readonly softAvoid?: Degree;
  /** Tones of a scale of the tonic's own family that deny the symbol, and pass all the same. */
  readonly against?: readonly Degree[];
  /** What to think over what: "Fmaj7 over Dm7". */
  readonly over?: string;
  /** One plain sentence. */
  readonly why: string;
}

/** Extras of a proposal: what to think, and words that come before the reasons. */
export interface Said {
  readonly over?: string;
  readonly lead?: string;
  /** How a tone that denies the symbol is used; only with it such a scale is offered at all. */
  readonly passing?: string;
}

/** What the judging of a collection on a change depends on beside the chord. */
export function judgedBy(
  { notes, blueNotes }: Pick<Collection, 'notes' | 'blueNotes'>,
  context: ChangeContext
): JudgeContext {
  const {
    change: { chord },
    minorGoal,
    isLeading,
    heard
  } = context;
  const holds = (semitones: number) =>
    notes.some((note) => semitonesUp(chord.rootPc, pitchClass(note)) === semitones);
  return {
    minorGoal,
    ...(isBlueTonic(context) ? { isBlueTonic: true } : {}),
    // Over a slash chord the degrees are another root's.
    isLeading: isLeading && heard === chord,
    hasSharpNine: !blueNotes && holds(1) && holds(4),
    ...(blueNotes ? { blueNotes } : {})
  };
}

/** Judges a collection on a change, without words. */
export function judgedOn(collection: Collection, context: ChangeContext): Judgement {
  return judge(context.change.chord, collection.notes.map(pitchClass), judgedBy(collection, context));
}

/** Judges a collection on a change and says why. */
export function choiceOf(
  approach: string,
  collection: Collection,
  context: ChangeContext,
  { over, lead, passing }: Said = {}
): ScaleChoice {
  const { chord } = context.change;
  const judgement = judgedOn(collection, context);
  const isTwo =
    context.family === 'minor' &&
    chord.tones.includes('b7') &&
    // The 13 of a Dorian tonic is its colour.
    context.change.function !== 'tonic' &&
    (context.leadsToFive || isStep(context.change.numeral, 'ii'));
  const softAvoid: Degree | undefined = isTwo && judgement.tensions.includes('13') ? '13' : undefined;
  // Picked one by one: what is proposed may be a choice judged on another chord before.
  const { facts, name, root, notes, parent, blueNotes } = collection;
  const choice: { -readonly [K in keyof ScaleChoice]: ScaleChoice[K] } = {
    approach,
    facts,
    name,
    root,
    notes,
    degrees: judgement.degrees,
    covers: judgement.covers,
    lacks: judgement.lacks,
    tensions: judgement.tensions,
    avoid: judgement.avoid,
    contradicts: judgement.contradicts,
    blue: judgement.blue,
    why: ''
  };
  if (parent) choice.parent = parent;
  if (blueNotes) choice.blueNotes = blueNotes;
  if (softAvoid) choice.softAvoid = softAvoid;
  if (over) choice.over = over;
  if (passing && judgement.contradicts.length === MOST_AGAINST) choice.against = judgement.contradicts;
  choice.why = (lead ? `${lead} ` : '') + reason(choice, context, passing);
  return choice;
}

/** So many tones against the symbol can pass. */
const MOST_AGAINST = 1;

/** A choice that denies what the symbol says is not offered, unless the tone that does is one to pass. */
export function fitsSymbol(choice: Judgement & { readonly against?: readonly Degree[] }): boolean {
  return choice.contradicts.length === 0 || choice.against !== undefined;
}

/** What a lacking tone costs: the 3 and 7 most, then the 1, then the 5. */
const LACK_COST: Readonly<Record<string, number>> = { '3': 8, '7': 8, '1': 4, '5': 2, tension: 1 };

/** What lacking some of a chord's tones costs: the 3 and 7 most, then the 1, then the 5. Source: docs/music-rules.md, Judging. */
export function lackCost(lacks: readonly Degree[]): number {
  return lacks.reduce((sum, tone) => sum + sure(LACK_COST[DEGREES[tone].slot], 'LACK_COST'), 0);
}

/** How two collections move: tones kept, moved by a semitone, moved by a tone or more. */
export interface Motion {
  readonly kept: number;
  readonly semitone: number;
  readonly tone: number;
}

/** Tones kept, moved a semitone and moved a tone from one collection to the next. */
export function motionBetween(from: Collection, to: Collection): Motion {
  const before = from.notes.map(pitchClass);
  const distances = to.notes.map((note) =>
    Math.min(
      ...before.map((pc) => Math.min(semitonesUp(pc, pitchClass(note)), semitonesUp(pitchClass(note), pc)))
    )
  );
  return {
    kept: distances.filter((d) => d === 0).length,
    semitone: distances.filter((d) => d === 1).length,
    tone: distances.filter((d) => d > 1).length
  };
}

/** Whether two collections have the same pitch classes, whatever their roots. */
export function sameNotes(a: Collection, b: Collection): boolean {
  const pcs = (c: Collection) => [...new Set(c.notes.map(pitchClass))].sort((x, y) => x - y).join();
  return pcs(a) === pcs(b);
}

/** Coverage (3 and 7 first), then fewest avoid notes, then most tensions, then least motion from the one before. */
export function byMerit(previous: Collection | null): (a: ScaleChoice, b: ScaleChoice) => number {
  const moved = (choice: ScaleChoice) => {
    if (!previous) return 0;
    const { semitone, tone } = motionBetween(previous, choice);
    return semitone + 2 * tone;
  };
  return (a, b) =>
    lackCost(a.lacks) - lackCost(b.lacks) ||
    a.avoid.length - b.avoid.length ||
    b.tensions.length - a.tensions.length ||
    moved(a) - moved(b);
}
