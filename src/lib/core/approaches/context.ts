/** What an approach is told about a change: the analysis around it. */
import { type Chord, type ChordFamily } from '../theory/chord';
import { pitchClass, semitonesUp } from '../theory/note';
import type { AnalysedChange, Analysis } from '../harmony/analysis';
import { sameKey } from '../harmony/key';
import { romanText } from '../harmony/numeral';

export interface ChangeContext {
  readonly change: AnalysedChange & { readonly chord: Chord };
  readonly family: ChordFamily;
  /** The next change whose chord differs, round the form; undefined in a one-chord chart. */
  readonly next: AnalysedChange | undefined;
  /** A dominant that goes, or points, to a minor chord. */
  readonly minorGoal: boolean;
  /** What comes next is a dominant a fourth up: the V to this ii. */
  readonly leadsToFive: boolean;
  /** The whole chart stays on one chord. */
  readonly isStatic: boolean;
  /** The whole chart is a blues, and the change stands in its key. */
  readonly blues: boolean;
  /** The change just before, where it has a chord. */
  readonly previous: (AnalysedChange & { readonly chord: Chord }) | undefined;
}

/** The context of a change; null where it has no chord. */
export function contextOf(analysis: Analysis, index: number): ChangeContext | null {
  const change = analysis.changes[index];
  if (!change?.chord) return null;
  const chord = change.chord;
  const family = chord.family;
  const next = nextHarmony(analysis.changes, index);
  const before = analysis.changes[index - 1];
  return {
    change: { ...change, chord },
    family,
    next,
    minorGoal: family === 'dominant' && pointsToMinor(change, chord, next),
    leadsToFive:
      next?.chord?.family === 'dominant' &&
      semitonesUp(pitchClass(chord.root), pitchClass(next.chord.root)) === 5,
    isStatic: next === undefined,
    blues: analysis.blues && sameKey(change.key, analysis.key),
    previous: before?.chord ? { ...before, chord: before.chord } : undefined
  };
}

/** All that an approach may look at, as one string: where it is the same, so is the answer. */
export function questionOf(context: ChangeContext): string {
  const { change, minorGoal, leadsToFive, isStatic, blues, previous } = context;
  const { symbol, key, numeral, function: role, beats } = change;
  const roman = numeral && romanText(numeral);
  return [
    symbol,
    key.tonic,
    key.mode,
    roman,
    role,
    beats,
    minorGoal,
    leadsToFive,
    isStatic,
    blues,
    previous?.symbol
  ].join(' ');
}

const nextHarmonies = new WeakMap<readonly AnalysedChange[], readonly (number | undefined)[]>();

/** The next change whose chord differs, round the form. */
function nextHarmony(changes: readonly AnalysedChange[], index: number): AnalysedChange | undefined {
  let nexts = nextHarmonies.get(changes);
  if (!nexts) nextHarmonies.set(changes, (nexts = findNextHarmonies(changes)));
  const next = nexts[index];
  return next === undefined ? undefined : changes[next];
}

/** For every change the place of the next one with another chord, found in one walk from the end, twice round. */
function findNextHarmonies(changes: readonly AnalysedChange[]): (number | undefined)[] {
  const count = changes.length;
  const nexts = new Array<number | undefined>(count);
  /** The nearest sounding change behind the one looked at. */
  let after: number | undefined;
  for (let step = 2 * count - 1; step >= 0; step--) {
    const at = step % count;
    const chord = changes[at]!.chord;
    if (!chord) continue;
    if (after !== undefined) {
      const other = changes[after]!.chord!;
      const isSame = pitchClass(other.root) === pitchClass(chord.root) && other.family === chord.family;
      nexts[at] = isSame ? nexts[after] : after;
    }
    after = at;
  }
  return nexts;
}

function pointsToMinor(change: AnalysedChange, chord: Chord, next: AnalysedChange | undefined): boolean {
  if (next?.chord && semitonesUp(pitchClass(chord.root), pitchClass(next.chord.root)) === 5) {
    const goal = next.chord.family;
    return goal === 'minor' || goal === 'half-diminished';
  }
  // Without its goal, the numeral says where it points: V7/vi, or the V of a minor key.
  const { numeral } = change;
  if (numeral?.number === 5 && !numeral.isSubstitute && numeral.of) return numeral.of.isMinor;
  return change.function === 'dominant' && change.key.mode === 'minor';
}
