/**
 * The moment of change: everything to be drawn about one change in one position: its notes by role, where each note
 * under the finger goes when the next chord comes, and two choices compared.
 */
import { contextOf, type ChangeContext } from '../approaches/context';
import { outsideRole, type JudgeContext, type OutsideRole } from '../approaches/judge';
import type { ScaleChoice } from '../approaches/choice';
import type { Collection } from '../approaches/collection';
import { chordPitchClasses, type Chord } from '../theory/chord';
import { pitchClass, semitonesUp, type NoteName } from '../theory/note';
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
  /** What is played over the change; null where no chord sounds. */
  readonly choice: ScaleChoice | null;
  /** Its notes and the chord's tones under the hand, lowest pitch first. */
  readonly marks: readonly Mark[];
  readonly caution?: string;
}

/** The moment of a change in a position, with what is chosen for it. */
export function momentOf(
  analysis: Analysis,
  index: number,
  neck: Instrument,
  position: number,
  choice: ScaleChoice | null
): Moment {
  const change = analysis.changes[index]!;
  const context = contextOf(analysis, index);
  if (!context) return { change, choice: null, marks: [] };
  return { change, choice, ...marksOf(context, choice, neck, position) };
}

/** The moments of all changes, each with its choice; what a chart repeats is laid out once. */
export function momentsOf(
  analysis: Analysis,
  neck: Instrument,
  position: number,
  chosen: readonly (ScaleChoice | null)[]
): Moment[] {
  const laidOut = new Map<string, ReturnType<typeof marksOf>>();
  return analysis.changes.map((change): Moment => {
    const context = contextOf(analysis, change.index);
    if (!context) return { change, choice: null, marks: [] };
    const choice = chosen[change.index] ?? null;
    const key = `${change.symbol} ${context.minorGoal} ${choice?.name}`;
    let marks = laidOut.get(key);
    if (!marks) laidOut.set(key, (marks = marksOf(context, choice, neck, position)));
    return { change, choice, ...marks };
  });
}

function marksOf(
  { change: { chord }, minorGoal }: ChangeContext,
  choice: ScaleChoice | null,
  neck: Instrument,
  position: number
): Pick<Moment, 'marks' | 'caution'> {
  const cells = layOut(neck, chord, choice, position);
  const marks = cells.map((cell): Mark => {
    const role = roleOf(chord, cell.midi % 12, { minorGoal, blueNotes: choice?.blueNotes ?? [] });
    if (role !== 'blue') return { ...cell, role: role === 'contradicts' ? 'other' : role };
    // Players read blue notes as ♭3 and ♭5, whatever tension they would be elsewhere.
    return { ...cell, role: 'other', degree: cell.degree === '#9' ? 'b3' : 'b5' };
  });
  const caution = stretchCaution(cells);
  return { marks, ...(caution ? { caution } : {}) };
}

/** Which of two collections a note belongs to. */
export type Share = 'both' | 'first' | 'second';

/** Two collections over one another under the hand: the notes they share, and those of one only. */
export function compare(
  chord: Chord,
  first: Collection,
  second: Collection,
  neck: Instrument,
  position: number
): (NamedCell & { readonly share: Share })[] {
  const [a, b] = [first, second].map((c) => new Set(c.notes.map(pitchClass))) as [Set<number>, Set<number>];
  const naming = namingOf(chord, { notes: [...second.notes, ...first.notes] });
  return positionFill(neck, new Set([...a, ...b]), position)
    .map((cell) => {
      const pc = cell.midi % 12;
      const share: Share = a.has(pc) && b.has(pc) ? 'both' : a.has(pc) ? 'first' : 'second';
      return { ...cell, ...nameOf(pc, naming), share };
    })
    .sort((x, y) => x.midi - y.midi);
}

/** The collection laid out, and any chord tone that it lacks. */
function layOut(neck: Instrument, chord: Chord, choice: Collection | null, position: number): NamedCell[] {
  const naming = namingOf(chord, choice);
  const collection = new Set([...chordPitchClasses(chord), ...(choice?.notes.map(pitchClass) ?? [])]);
  return positionFill(neck, collection, position)
    .map((cell): NamedCell => ({ ...cell, ...nameOf(cell.midi % 12, naming) }))
    .sort((a, b) => a.midi - b.midi);
}

function roleOf(chord: Chord, pc: number, context: JudgeContext): 'chord' | OutsideRole {
  if (chordPitchClasses(chord).includes(pc)) return 'chord';
  return outsideRole(chord, semitonesUp(pitchClass(chord.root), pc), context);
}

/** The chord's tones under the hand, lowest pitch first: what a thread can run through. */
export function tonesInReach(chord: Chord, neck: Instrument, position: number): readonly NamedCell[] {
  return [...shapeOf(neck, chord, null, position).cells].sort((a, b) => a.midi - b.midi);
}

/** The same for every change; nothing where no chord sounds. */
export function tonesOfAll(analysis: Analysis, neck: Instrument, position: number): (readonly NamedCell[])[] {
  const laidOut = new Map<string, readonly NamedCell[]>();
  return analysis.changes.map(({ chord }) => {
    if (!chord) return [];
    let tones = laidOut.get(chord.symbol);
    if (!tones) laidOut.set(chord.symbol, (tones = tonesInReach(chord, neck, position)));
    return tones;
  });
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
