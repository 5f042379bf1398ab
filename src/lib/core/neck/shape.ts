/** Shapes: a chord or scale laid out in a position, every cell named and counted against the chord. */
import { sure } from '../base/list';
import type { Fret, StringNumber } from '../base/units';
import { prettyDegree, prettyNote } from '../theory/typeset';
import { type Chord } from '../theory/chord';
import { DEGREES, degreeOf, type Degree } from '../theory/degree';
import { pitchClass, semitonesUp, spell, type NoteName, type PitchClass } from '../theory/note';
import { homeChordTones, type Scale } from '../theory/scale';
import { positionFill, stretchCaution, type PositionCell } from './position';
import type { Instrument, Spot } from './tuning';

/** A cell with its name and its degree against the chord of the moment. */
export interface NamedCell extends PositionCell {
  readonly note: NoteName;
  readonly degree: Degree;
}

export interface Shape {
  readonly name: string;
  readonly position: number;
  readonly cells: readonly NamedCell[];
  readonly stretches: readonly NamedCell[];
  /** Degrees of the collection that the hand cannot reach in this position. */
  readonly lacksInReach: readonly Degree[];
  readonly caution?: string;
}

/** What degrees and spellings are counted from: the chord, or the chord a scale builds on its own root. */
export interface Naming {
  readonly root: NoteName;
  readonly tones: readonly Degree[];
  /** Spelled names by pitch class, where the collection has its own spelling. */
  readonly names: ReadonlyMap<PitchClass, NoteName>;
}

/** The naming of a chord, and of a collection on it. Chord tones keep the chord's spelling. */
export function namingOf(chord: Chord, collection: { readonly notes: readonly NoteName[] } | null): Naming {
  const names = new Map<PitchClass, NoteName>();
  for (const note of [...(collection?.notes ?? []), ...chord.notes]) names.set(pitchClass(note), note);
  return { root: chord.root, tones: chord.tones, names };
}

function namingOfScale(scale: Scale): Naming {
  const names = new Map(scale.notes.map((note) => [pitchClass(note), note]));
  return { root: scale.root, tones: homeChordTones(scale), names };
}

/** The name and degree of a pitch class. */
export function nameOf(pc: PitchClass, naming: Naming): { note: NoteName; degree: Degree } {
  const degree = degreeOf(semitonesUp(pitchClass(naming.root), pc), naming.tones);
  return { degree, note: naming.names.get(pc) ?? spell(naming.root, degree) };
}

/** A chord's arpeggio, a scale, or a scale counted against a chord: what is laid out, and how it is named. Throws where both are null. */
export function shapeSubject(
  chord: Chord | null,
  scale: Scale | null
): {
  readonly naming: Naming;
  readonly collection: {
    readonly name: string;
    readonly root: NoteName;
    readonly notes: readonly NoteName[];
  };
} {
  if (!scale) {
    const own = sure(chord, 'a chord or scale');
    return {
      naming: namingOf(own, null),
      collection: { name: chordName(own), root: own.root, notes: own.notes }
    };
  }
  return {
    naming: chord ? namingOf(chord, scale) : namingOfScale(scale),
    collection: { name: `${scale.root} ${scale.name}`, root: scale.root, notes: scale.notes }
  };
}

/** Degrees of a collection that some cells do not sound, from the root up. */
export function lackingIn(
  cells: readonly Spot[],
  { naming, collection }: ReturnType<typeof shapeSubject>
): Degree[] {
  const reached = new Set(cells.map((cell) => cell.midi % 12));
  return collection.notes
    .map(pitchClass)
    .filter((pc) => !reached.has(pc))
    .map((pc) => nameOf(pc, naming).degree)
    .sort((a, b) => DEGREES[a].semitones - DEGREES[b].semitones);
}

/** Lays a chord's arpeggio, a scale, or a scale counted against a chord, out in a position. */
export function shapeOf(neck: Instrument, chord: Chord | null, scale: Scale | null, position: number): Shape {
  const subject = shapeSubject(chord, scale);
  const { naming, collection } = subject;
  const cells = positionFill(neck, collection.notes.map(pitchClass), position).map((cell): NamedCell => ({
    ...cell,
    ...nameOf(cell.midi % 12, naming)
  }));
  const caution = stretchCaution(cells);
  return {
    name: collection.name,
    position,
    cells,
    stretches: cells.filter((cell) => cell.stretch),
    lacksInReach: lackingIn(cells, subject),
    ...(caution ? { caution } : {})
  };
}

const TRIAD_NAMES: Readonly<Record<string, string>> = {
  '1 3 5': 'major triad',
  '1 b3 5': 'minor triad',
  '1 b3 b5': 'diminished triad',
  '1 3 #5': 'augmented triad'
};

/** "G minor triad", "Am7b5 arpeggio". */
export function chordName(chord: Chord): string {
  const triad = TRIAD_NAMES[chord.tones.join(' ')];
  if (triad) return `${chord.root} ${triad}`;
  if (chord.family === 'power') return `${chord.root} root and fifth`;
  return `${chord.root}${chord.suffix} arpeggio`;
}

interface SaidCell {
  readonly fret: Fret;
  readonly note: NoteName;
  readonly degree: string;
}

/** "fret 5, A♭, ♭3": a cell of a string that has been named, as a screen reader says it. */
export function sayOnString({ fret, note, degree }: SaidCell): string {
  return `${fret === 0 ? 'open' : `fret ${fret}`}, ${prettyNote(note)}, ${prettyDegree(degree)}`;
}

/** "string 3, fret 5, A♭, ♭3". */
export function sayCell(cell: SaidCell & { readonly string: StringNumber }): string {
  return `string ${cell.string}, ${sayOnString(cell)}`;
}
