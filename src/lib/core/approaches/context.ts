/** What an approach is told about a change: the analysis around it. */
import { chordFamily, type Chord, type ChordFamily } from '../theory/chord';
import { pitchClass, semitonesUp } from '../theory/note';
import type { AnalysedChange, Analysis } from '../harmony/analysis';
import { sameKey } from '../harmony/key';

export interface ChangeContext {
  readonly change: AnalysedChange & { readonly chord: Chord };
  readonly family: ChordFamily;
  /** The next change whose chord differs, round the form; undefined in a one-chord chart. */
  readonly next: AnalysedChange | undefined;
  /** A dominant that goes, or points, to a minor chord. */
  readonly minorGoal: boolean;
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
  const family = chordFamily(chord);
  const next = nextHarmony(analysis.changes, index);
  const before = analysis.changes[index - 1];
  return {
    change: { ...change, chord },
    family,
    next,
    minorGoal: family === 'dominant' && pointsToMinor(change, chord, next),
    isStatic: next === undefined,
    blues: analysis.blues && sameKey(change.key, analysis.key),
    previous: before?.chord ? { ...before, chord: before.chord } : undefined
  };
}

function nextHarmony(changes: readonly AnalysedChange[], index: number): AnalysedChange | undefined {
  const chord = changes[index]!.chord!;
  for (let step = 1; step < changes.length; step++) {
    const other = changes[(index + step) % changes.length]!;
    const isOther =
      other.chord &&
      (pitchClass(other.chord.root) !== pitchClass(chord.root) ||
        chordFamily(other.chord) !== chordFamily(chord));
    if (isOther) return other;
  }
  return undefined;
}

function pointsToMinor(change: AnalysedChange, chord: Chord, next: AnalysedChange | undefined): boolean {
  if (next?.chord && semitonesUp(pitchClass(chord.root), pitchClass(next.chord.root)) === 5) {
    const goal = chordFamily(next.chord);
    return goal === 'minor' || goal === 'half-diminished';
  }
  // Without its goal, the numeral says where it points: V7/vi, or the V of a minor key.
  const goal = /^V.*\/(.+)$/.exec(change.roman ?? '')?.[1];
  if (goal) return goal === goal.toLowerCase();
  return change.function === 'dominant' && change.key.mode === 'minor';
}
