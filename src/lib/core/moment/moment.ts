/**
 * The moment of change: everything to be drawn about one change in one position: its notes by role, where each note
 * under the finger goes when the next chord comes, and the first choice of scale.
 */
import { modes } from '../approaches/modes';
import { contextOf } from '../approaches/context';
import { outsideRole } from '../approaches/judge';
import type { ScaleChoice } from '../approaches/choice';
import { chordPitchClasses, type Chord } from '../theory/chord';
import { pitchClass, semitonesUp, type NoteName } from '../theory/note';
import { readScale, type Scale } from '../theory/scale';
import type { Degree } from '../theory/degree';
import type { AnalysedChange, Analysis } from '../harmony/analysis';
import { positionFill, stretchCaution } from '../neck/position';
import { nameOf, namingOf, shapeOf, type NamedCell, type Naming } from '../neck/shape';
import { spots, type Instrument } from '../neck/tuning';

/** How a note is drawn: by what it means on the chord of the moment. */
export type Role = 'chord' | 'tension' | 'avoid' | 'other';

export interface Mark extends NamedCell {
  readonly role: Role;
}

/** Where a chord tone goes when the chord changes: to the nearest tone of the next chord under the hand. */
export interface Move {
  readonly from: NamedCell;
  readonly to: NamedCell;
  readonly semitones: number;
}

/** A chord tone elsewhere on the neck. */
export interface FarTone {
  readonly string: number;
  readonly fret: number;
  readonly note: NoteName;
  readonly degree: Degree;
}

export interface Moment {
  readonly change: AnalysedChange;
  readonly choice: ScaleChoice | null;
  /** The first choice of scale and the chord's tones under the hand, lowest pitch first. */
  readonly marks: readonly Mark[];
  readonly caution?: string;
}

/** The moment of a change in a position. */
export function momentOf(analysis: Analysis, index: number, neck: Instrument, position: number): Moment {
  const change = analysis.changes[index]!;
  const context = contextOf(analysis, index);
  if (!context) return { change, choice: null, marks: [] };
  const { chord } = context.change;
  const choice = modes(context)[0] ?? null;
  const scale = choice ? readScale(choice.name) : null;
  const cells = layOut(neck, chord, scale, position);
  const marks = cells.map((cell): Mark => ({
    ...cell,
    role: roleOf(chord, cell.midi % 12, context.minorGoal)
  }));
  const caution = stretchCaution(cells);
  return { change, choice, marks, ...(caution ? { caution } : {}) };
}

/** The scale laid out, and any chord tone that it lacks. */
function layOut(neck: Instrument, chord: Chord, scale: Scale | null, position: number): NamedCell[] {
  const naming = namingOf(chord, scale);
  const collection = new Set([...chordPitchClasses(chord), ...(scale?.notes.map(pitchClass) ?? [])]);
  return positionFill(neck, collection, position)
    .map((cell): NamedCell => ({ ...cell, ...nameOf(cell.midi % 12, naming) }))
    .sort((a, b) => a.midi - b.midi);
}

function roleOf(chord: Chord, pc: number, minorGoal: boolean): Role {
  if (chordPitchClasses(chord).includes(pc)) return 'chord';
  const role = outsideRole(chord, semitonesUp(pitchClass(chord.root), pc), { minorGoal });
  return role === 'tension' || role === 'avoid' ? role : 'other';
}

/** The chord's tones under the hand, lowest pitch first: what a thread can run through. */
export function tonesInReach(chord: Chord, neck: Instrument, position: number): readonly NamedCell[] {
  return [...shapeOf(neck, chord, null, position).cells].sort((a, b) => a.midi - b.midi);
}

/** Where every tone of a chord under the hand goes when the next chord comes; the nearest tone, downward on a tie. */
export function movesBetween(from: Chord, to: Chord, neck: Instrument, position: number): Move[] {
  const goals = tonesInReach(to, neck, position);
  return tonesInReach(from, neck, position).flatMap((cell) => {
    const nearest = [...goals].sort((a, b) => Math.abs(a.midi - cell.midi) - Math.abs(b.midi - cell.midi))[0];
    return nearest ? [{ from: cell, to: nearest, semitones: nearest.midi - cell.midi }] : [];
  });
}

/** The chord's tones everywhere on the neck outside a stretch of frets (both in). */
export function tonesElsewhere(chord: Chord, neck: Instrument, from: number, to: number): FarTone[] {
  const naming: Naming = namingOf(chord, null);
  const wanted = new Set(chordPitchClasses(chord));
  return spots(neck, 0, neck.frets)
    .filter((spot) => wanted.has(spot.midi % 12) && (spot.fret < from || spot.fret > to))
    .map((spot) => ({ string: spot.string, fret: spot.fret, ...nameOf(spot.midi % 12, naming) }));
}
