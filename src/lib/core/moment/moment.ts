/**
 * The moment of change: everything to be drawn about one change in one position: its notes by role, where each note
 * under the finger goes when the next chord comes, and two choices compared.
 */
import { contextOf, type ChangeContext } from '../approaches/context';
import { outsideRole, type JudgeContext, type OutsideRole } from '../approaches/judge';
import { judgedBy, type ScaleChoice } from '../approaches/choice';
import { arpeggioOf, type Collection } from '../approaches/collection';
import { nth } from '../base/list';
import type { PitchClass } from '../base/units';
import { type Chord } from '../theory/chord';
import { oncePer } from '../base/once';
import { pitchClass, semitonesUp, type NoteName } from '../theory/note';
import type { Degree } from '../theory/degree';
import type { AnalysedChange, Analysis } from '../harmony/analysis';
import type { Area, Subject } from '../neck/area';
import { positionFill } from '../neck/position';
import { nameOf, namingOf, shapeOf, type NamedCell, type Naming } from '../neck/shape';
import { spots, type Instrument, type Spot } from '../neck/tuning';

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

/** A place on the neck with its name, under no hand. */
export interface NamedTone extends Spot {
  readonly note: NoteName;
  readonly degree: Degree;
}

export interface Moment {
  readonly change: AnalysedChange;
  /** What is played over the change; null where no chord sounds. */
  readonly choice: ScaleChoice | null;
  /** Where it is laid out; null where no chord sounds. */
  readonly area: Area | null;
  /** Its notes and the chord's tones under the hand, lowest pitch first. */
  readonly marks: readonly Mark[];
}

const playedOver = oncePer((chord: Chord) =>
  oncePer((collection: Collection): Subject => ({ naming: namingOf(chord, collection), collection }))
);
const arpeggio = oncePer(arpeggioOf);

/** What is laid out for a change: what is played over it, or the chord itself. The same for the same two. */
export function subjectOf(chord: Chord, choice: Collection | null): Subject {
  return playedOver(chord)(choice ?? arpeggio(chord));
}

/** The subjects of all changes; null where no chord sounds. */
export function subjectsOf(analysis: Analysis, chosen: readonly (Collection | null)[]): (Subject | null)[] {
  return analysis.changes.map(({ chord, index }) => (chord ? subjectOf(chord, chosen[index] ?? null) : null));
}

/** The moment of a change with what is chosen for it, laid out in an area. */
export function momentOf(
  analysis: Analysis,
  index: number,
  neck: Instrument,
  choice: ScaleChoice | null,
  area: Area | null
): Moment {
  const change = nth(analysis.changes, index);
  const context = contextOf(analysis, index);
  if (!context || !area) return { change, choice: null, area: null, marks: [] };
  return { change, choice, area, marks: marksIn(context, choice, area, neck) };
}

/** What has been marked in an area: a chart comes back to it, and so does a hand. */
const marked = oncePer((_area: Area) =>
  oncePer((_played: Collection | Chord) => new Map<string, readonly Mark[]>())
);

function marksIn(
  context: ChangeContext,
  choice: ScaleChoice | null,
  area: Area,
  neck: Instrument
): readonly Mark[] {
  const known = marked(area)(choice ?? context.change.chord);
  // What roles hang on beside the chord and what is played over it, as `judgedBy` reads a context.
  const key = `${context.minorGoal} ${context.isLeading && context.heard === context.change.chord}`;
  const marks = known.get(key) ?? marksOf(context, choice, area, neck);
  known.set(key, marks);
  return marks;
}

/** The moments of all changes, each with its choice in its area. */
export function momentsOf(
  analysis: Analysis,
  neck: Instrument,
  chosen: readonly (ScaleChoice | null)[],
  areas: readonly (Area | null)[]
): Moment[] {
  return analysis.changes.map(({ index }) =>
    momentOf(analysis, index, neck, chosen[index] ?? null, areas[index] ?? null)
  );
}

/** A chord tone that a collection lacks is shown as far outside its shape as this, in semitones. */
const BESIDE = 3;

/** The cells of the area by role, and the chord's tones that the collection lacks. */
function marksOf(context: ChangeContext, choice: ScaleChoice | null, area: Area, neck: Instrument): Mark[] {
  const { chord } = context.change;
  const held = new Set(choice?.notes.map(pitchClass) ?? chord.pitchClasses);
  const lacking = chord.pitchClasses.filter((pc) => !held.has(pc));
  const naming = namingOf(chord, choice);
  const [low, high] = [area.cells[0]?.midi ?? 0, area.cells.at(-1)?.midi ?? 0];
  const beside = positionFill(neck, lacking, area.position)
    .filter(({ midi }) => midi >= low - BESIDE && midi <= high + BESIDE)
    .map((cell): NamedCell => ({ ...cell, ...nameOf(cell.midi % 12, naming) }));
  return [...area.cells, ...beside]
    .sort((a, b) => a.midi - b.midi)
    .map((cell): Mark => markOf(cell, context, choice));
}

function markOf<T extends NamedTone>(
  cell: T,
  context: ChangeContext,
  choice: ScaleChoice | null
): T & { readonly role: Role } {
  const { chord } = context.change;
  const role = roleOf(chord, cell.midi % 12, judgedBy(choice ?? chord, context));
  if (role !== 'blue') return { ...cell, role: role === 'contradicts' ? 'other' : role };
  // Players read blue notes as ♭3 and ♭5, whatever tension they would be elsewhere.
  return { ...cell, role: 'other', degree: cell.degree === '#9' ? 'b3' : 'b5' };
}

/** What is played over a change and the chord's tones, everywhere on the neck, by role. */
export function marksEverywhere(
  analysis: Analysis,
  index: number,
  neck: Instrument,
  choice: ScaleChoice | null
): (NamedTone & { readonly role: Role })[] {
  const context = contextOf(analysis, index);
  if (!context) return [];
  const { chord } = context.change;
  const naming = namingOf(chord, choice);
  const wanted = new Set([...chord.pitchClasses, ...(choice?.notes.map(pitchClass) ?? [])]);
  return spots(neck, 0, neck.frets)
    .filter(({ midi }) => wanted.has(midi % 12))
    .map((spot) => markOf({ ...spot, ...nameOf(spot.midi % 12, naming) }, context, choice));
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

function roleOf(chord: Chord, pc: PitchClass, context: JudgeContext): 'chord' | OutsideRole {
  if (chord.pitchClasses.includes(pc)) return 'chord';
  return outsideRole(chord, semitonesUp(pitchClass(chord.root), pc), context);
}

/** The chord's tones under the hand, lowest pitch first: what a thread can run through. */
export function tonesInReach(chord: Chord, neck: Instrument, position: number): readonly NamedCell[] {
  return reachOn(neck)(chord)(position);
}

const reachOn = oncePer((neck: Instrument) =>
  oncePer((chord: Chord) => {
    const known: (readonly NamedCell[])[] = [];
    return (position: number) =>
      (known[position] ??= [...shapeOf(neck, chord, null, position).cells].sort((a, b) => a.midi - b.midi));
  })
);

/** The same for every change in its own position; nothing where no chord sounds. */
export function tonesOfAll(
  analysis: Analysis,
  neck: Instrument,
  positions: readonly number[]
): (readonly NamedCell[])[] {
  return analysis.changes.map(({ chord, index }) =>
    chord ? tonesInReach(chord, neck, nth(positions, index)) : []
  );
}

/** Where every chord tone under the hand goes when the next chord comes: to its nearest tone, downward on a tie. */
export function movesBetween(from: readonly NamedCell[], to: readonly NamedCell[]): Move[] {
  return from.flatMap((cell) => {
    const nearest = [...to].sort((a, b) => Math.abs(a.midi - cell.midi) - Math.abs(b.midi - cell.midi))[0];
    return nearest ? [{ from: cell, to: nearest, semitones: nearest.midi - cell.midi }] : [];
  });
}

/** The chord's tones everywhere on the neck outside a stretch of frets (both in). */
export function tonesElsewhere(chord: Chord, neck: Instrument, from: number, to: number): NamedTone[] {
  const naming: Naming = namingOf(chord, null);
  const wanted = new Set(chord.pitchClasses);
  return spots(neck, 0, neck.frets)
    .filter((spot) => wanted.has(spot.midi % 12) && (spot.fret < from || spot.fret > to))
    .map((spot) => ({ ...spot, ...nameOf(spot.midi % 12, naming) }));
}
