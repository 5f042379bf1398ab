/**
 * Approach notes: what leads into a target on the last beats before it, judged against the chord they sound on.
 * Source: docs/music-rules.md, Targets and the path.
 */
import type { ScaleChoice } from '../approaches/choice';
import { contextOf } from '../approaches/context';
import { isFive } from '../harmony/heard';
import { outsideRole } from '../approaches/judge';
import { nth } from '../base/list';
import type { Beats, Midi } from '../base/units';
import type { AnalysedChange, Analysis } from '../harmony/analysis';
import { nameOf, namingOf } from '../neck/shape';
import { lowestFret, spots, type Instrument } from '../neck/tuning';
import type { Target, TargetPath } from '../targets/path';
import { type Chord } from '../theory/chord';
import { pitchClass, semitonesUp } from '../theory/note';
import type { NamedTone } from '../moment/moment';

export const APPROACH_KINDS = ['below', 'above', 'step', 'enclosure', 'third'] as const;
export type ApproachKind = (typeof APPROACH_KINDS)[number];

interface KindFacts {
  readonly name: string;
  /** In few words, for a sheet. */
  readonly short: string;
  readonly hint: string;
}

export const APPROACH_FACTS: Readonly<Record<ApproachKind, KindFacts>> = {
  below: { name: 'semitone below', short: 'from below', hint: 'The fret under the target' },
  above: { name: 'semitone above', short: 'from above', hint: 'The fret over the target' },
  step: {
    name: 'scale step',
    short: 'step',
    hint: 'The neighbour in the scale, from the side the line comes from'
  },
  enclosure: { name: 'enclosure', short: 'enclosed', hint: 'The step above, then the semitone below' },
  third: { name: '♭3 up to 3', short: '♭3→3', hint: 'The blues move into a major third; never downward' }
};

/** A wish for a target: one kind, or the one that fits best. */
export type ApproachWish = ApproachKind | 'fitting';

export interface ApproachNote extends NamedTone {
  readonly kind: ApproachKind;
  /** The change it sounds on: the one before the target's, or the same for a target inside a change. */
  readonly change: number;
  /** Beat within that change. */
  readonly beat: number;
  readonly beats: Beats;
  /** What it is on that chord. */
  readonly role: 'chord' | 'tension' | 'avoid' | 'outside';
}

/** An approach note lasts half a beat. */
const LENGTH = 0.5;
/** A landing sounds at least this many beats before it is left. */
const LEAST_LANDING = 0.5;
/** An approach lies within these many frets of its target. */
const REACH = 4;

/** The moment before a target: the change that sounds there, and how far back the last landing is. */
interface Before {
  readonly change: AnalysedChange & { readonly chord: Chord };
  readonly choice: ScaleChoice | null;
  /** The beat within the change at which it ends, or the target comes. */
  readonly end: number;
  /** Beats free for approach notes. */
  readonly room: number;
  readonly last: Target;
}

/** By the target's place in the path. */
export type ApproachNotes = ReadonlyMap<number, readonly ApproachNote[]>;

/** The approach notes into every target of a path that has room for them, by the target's place in the path. */
export function approachesOf(
  analysis: Analysis,
  path: TargetPath,
  chosen: readonly (ScaleChoice | null)[],
  neck: Instrument,
  isLoop: boolean,
  wishFor: (target: Target) => ApproachWish | null
): ApproachNotes {
  const found = new Map<number, readonly ApproachNote[]>();
  path.targets.forEach((target, i) => {
    const wish = wishFor(target);
    const before = wish && beforeTarget(analysis, path, chosen, isLoop, i);
    if (!before) return;
    const kinds = wish === 'fitting' ? fittingKinds(analysis, target, before) : [wish];
    for (const kind of kinds) {
      const notes = approachInto(analysis, target, before, neck, kind);
      if (!notes) continue;
      found.set(i, notes);
      return;
    }
  });
  return found;
}

function beforeTarget(
  analysis: Analysis,
  path: TargetPath,
  chosen: readonly (ScaleChoice | null)[],
  isLoop: boolean,
  i: number
): Before | null {
  const target = nth(path.targets, i);
  const last = path.targets[i - 1] ?? (isLoop ? path.targets.at(-1) : undefined);
  if (!last) return null;
  const isInside = target.beat > 1;
  const count = analysis.changes.length;
  const index = isInside ? target.change : (target.change - 1 + count) % count;
  const change = nth(analysis.changes, index);
  if (!change.chord || (!isInside && target.change === 0 && !isLoop)) return null;
  const end = isInside ? target.beat : change.beats + 1;
  const from = last.change === index && last !== target ? last.beat + LEAST_LANDING : 1;
  return {
    change: { ...change, chord: change.chord },
    choice: chosen[index] ?? null,
    end,
    room: end - from,
    last
  };
}

/**
 * Kinds in the order in which they suit a target: the blues move on a dominant, a triad that leads as one does, or where the blues is spoken;
 * else from the side the line comes from.
 */
function fittingKinds(analysis: Analysis, target: Target, { last }: Before): ApproachKind[] {
  const context = contextOf(analysis, target.change);
  const isBlue =
    context !== null && (isFive(context.heard) || context.isLeading || context.language !== null);
  const blues: ApproachKind[] = isBlue ? ['third'] : [];
  return last.cell.midi > target.cell.midi
    ? [...blues, 'step', 'above', 'below']
    : [...blues, 'below', 'step', 'above'];
}

/** The notes of one kind, or null where it does not apply, has no room or would only repeat the landing. */
function approachInto(
  analysis: Analysis,
  target: Target,
  before: Before,
  neck: Instrument,
  kind: ApproachKind
): ApproachNote[] | null {
  const pitches = pitchesOf(target, before, kind);
  if (!pitches || pitches.length * LENGTH > before.room) return null;
  if (pitches[0] === before.last.cell.midi && pitches.length === 1) return null;
  const notes = pitches.map((midi, i): ApproachNote | null => {
    const spot = nearestSpot(neck, midi, target);
    if (!spot) return null;
    const { change, choice, end } = before;
    const naming = namingOf(change.chord, choice);
    return {
      ...spot,
      ...nameOf(midi % 12, naming),
      kind,
      change: change.index,
      beat: end - (pitches.length - i) * LENGTH,
      beats: LENGTH,
      role: roleOn(analysis, change, midi)
    };
  });
  return notes.every((note) => note !== null) ? notes : null;
}

/** The pitches of an approach, in the order in which they are played. */
function pitchesOf(target: Target, before: Before, kind: ApproachKind): number[] | null {
  const { midi, degree } = target.cell;
  const fromAbove = before.last.cell.midi > midi;
  switch (kind) {
    case 'below':
      return [midi - 1];
    case 'above':
      return [midi + 1];
    case 'third':
      return degree === '3' ? [midi - 1] : null;
    case 'step':
      return [midi + stepFrom(before, midi, fromAbove ? 1 : -1)];
    case 'enclosure':
      return [midi + stepFrom(before, midi, 1), midi - 1];
  }
}

/** Semitones to the neighbour of a pitch in the scale that sounds: a semitone or a tone, a tone where it has neither. */
function stepFrom({ change, choice }: Before, midi: Midi, direction: 1 | -1): number {
  const held = new Set(choice?.notes.map(pitchClass) ?? change.chord.pitchClasses);
  const isHeld = (semitones: number) => held.has((midi + direction * semitones + 12) % 12);
  return direction * (isHeld(1) ? 1 : 2);
}

/** The place of a pitch nearest a target: on its string where that can be, else as few frets away as possible. */
function nearestSpot(neck: Instrument, midi: Midi, { cell }: Target) {
  return spots(neck, Math.max(lowestFret(neck), cell.fret - REACH), cell.fret + REACH)
    .filter((spot) => spot.midi === midi)
    .sort(
      (a, b) =>
        Math.abs(a.string - cell.string) - Math.abs(b.string - cell.string) ||
        Math.abs(a.fret - cell.fret) - Math.abs(b.fret - cell.fret)
    )[0];
}

function roleOn(analysis: Analysis, change: AnalysedChange & { readonly chord: Chord }, midi: Midi) {
  const { chord } = change;
  if (chord.pitchClasses.includes(midi % 12)) return 'chord';
  const minorGoal = contextOf(analysis, change.index)?.minorGoal ?? false;
  const role = outsideRole(chord, semitonesUp(pitchClass(chord.root), midi % 12), { minorGoal });
  return role === 'tension' || role === 'avoid' ? role : 'outside';
}
