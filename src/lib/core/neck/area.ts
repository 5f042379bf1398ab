/** An area: a collection laid out in one small part of the neck, and what that part is called. */
import type { Fret, StringNumber } from '../base/units';
import { type Degree } from '../theory/degree';
import { pitchClass, type NoteName } from '../theory/note';
import type { ChordForm } from './box';
import { positionFill, stretchCaution, type PositionCell } from './position';
import { nameOf, type NamedCell, type Naming } from './shape';
import type { Instrument, Spot } from './tuning';

/** What is laid out: a collection, and the chord (or the scale's own) that its degrees are counted against. */
export interface Subject {
  readonly naming: Naming;
  readonly collection: {
    readonly name: string;
    readonly root: NoteName;
    readonly notes: readonly NoteName[];
  };
}

/** What an area is called. The system that cuts the neck up brings the words; `kind` tells a plain hand position from its own areas. */
export interface AreaName {
  readonly kind: string;
  /** "box 3", "C form", "around the ♭3", "position 5". */
  readonly words: string;
}

/** The name of a plain hand position, which every system falls back on. */
export const positionName = (fret: Fret): AreaName => ({ kind: 'position', words: `position ${fret}` });

/** Title and fret in one, as a strip has room for: "box 3 · 5"; a position has its fret in its name. */
export function areaLabel({ name, anchor }: Pick<Area, 'name' | 'anchor'>): string {
  return name.kind === 'position' ? name.words : `${name.words} · ${anchor}`;
}

export interface Area {
  readonly name: AreaName;
  /** The fret the shape is named from. */
  readonly anchor: number;
  /** Where the hand is. */
  readonly position: number;
  /** Lowest pitch first. */
  readonly cells: readonly NamedCell[];
  readonly box?: { readonly minor: number; readonly major: number; readonly form: ChordForm };
  /** Said where the system has no shape of its own for the collection. */
  readonly remark?: string;
  readonly caution?: string;
}

export type Quality = 'major' | 'minor';

/** Minor where there is a minor third and no major one. */
export function qualityOf(tones: readonly Degree[]): Quality {
  return tones.includes('b3') && !tones.includes('3') ? 'minor' : 'major';
}

/** Names cells and gathers what there is to say about them. */
export function areaOf(
  { naming }: Subject,
  cells: readonly PositionCell[],
  facts: Omit<Area, 'cells' | 'caution'>
): Area {
  const caution = stretchCaution(cells);
  return {
    ...facts,
    cells: [...cells]
      .sort((a, b) => a.midi - b.midi)
      .map((cell) => ({ ...cell, ...nameOf(cell.midi % 12, naming) })),
    ...(caution ? { caution } : {})
  };
}

/** The collection by position fill. */
export function fillAt(
  neck: Instrument,
  subject: Subject,
  position: number,
  name: AreaName = positionName(position),
  remark?: string
): Area {
  const cells = positionFill(neck, subject.collection.notes.map(pitchClass), position);
  return areaOf(subject, cells, { name, anchor: position, position, ...(remark ? { remark } : {}) });
}

/** Position fill, with the reason why the system's own shape is not there. */
export function fillInstead(neck: Instrument, subject: Subject, position: number, missing: string): Area {
  const remark = `This collection has no ${missing}; it is laid out in position ${position}.`;
  return fillAt(neck, subject, position, undefined, remark);
}

/** The position a hand takes for cells: at their lowest fret, or one above it where they need a stretch back. */
export function handFor(neck: Instrument, cells: readonly Spot[]): number {
  if (cells.some(({ fret }) => fret === neck.capo)) return neck.capo + 1;
  const frets = cells.map(({ fret }) => fret);
  const low = Math.min(...frets);
  return Math.max(...frets) - low >= neck.span ? low + 1 : low;
}

/** Where an area begins: its lowest fret on each string, from the lowest string up. */
export function borderOf(area: Area): { readonly string: StringNumber; readonly fret: Fret }[] {
  const lowest = new Map<number, number>();
  for (const { string, fret } of area.cells) lowest.set(string, Math.min(fret, lowest.get(string) ?? fret));
  return [...lowest].map(([string, fret]) => ({ string, fret })).sort((a, b) => b.string - a.string);
}

/** Cells of an area that its neighbour holds too: the notes that stay under the finger. */
export function staying(area: Area, before: Area): ReadonlySet<string> {
  const held = new Set(before.cells.map(placeOf));
  return new Set(area.cells.map(placeOf).filter((place) => held.has(place)));
}

/** "3:7": string and fret in one word. */
export function placeOf({ string, fret }: { readonly string: StringNumber; readonly fret: Fret }): string {
  return `${string}:${fret}`;
}
