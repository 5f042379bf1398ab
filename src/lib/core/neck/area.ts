/**
 * The schools of organising the neck. Each cuts it into areas in its own way and names them; the notes of a collection
 * stay what they are. Source: The neck and the table of schools, in the music rules.
 */
import { DEGREES, prettyDegree, type Degree } from '../theory/degree';
import { pitchClass, spell, type NoteName, type PitchClass } from '../theory/note';
import { scaleOf } from '../theory/scale';
import {
  boxesOf,
  formOf,
  minorPentatonic,
  nearestTo,
  pentatonicOf,
  relativeMinor,
  type Box,
  type ChordForm,
  type Pentatonic
} from './box';
import { fingerRun } from './fingering';
import { fingerAt, positionFill, stretchCaution, type PositionCell } from './position';
import { nameOf, type NamedCell, type Naming } from './shape';
import { threeAString } from './three-a-string';
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

/** A collection in one small area of the neck. */
export interface Area {
  /** "box 3", "C form", "around the ♭3", "position 5". */
  readonly title: string;
  /** The fret the shape is named from. */
  readonly anchor: number;
  /** Where the hand is. */
  readonly position: number;
  /** Lowest pitch first. */
  readonly cells: readonly NamedCell[];
  readonly box?: { readonly minor: number; readonly major: number; readonly form: ChordForm };
  /** Said where the school has no shape of its own for the collection. */
  readonly remark?: string;
  readonly caution?: string;
}

/** The key that the neck is organised around. */
export interface Home {
  readonly tonic: NoteName;
  readonly mode: 'major' | 'minor';
}

/** A place for the hand to go to. */
export interface Row {
  readonly title: string;
  readonly position: number;
}

export interface Organisation {
  readonly id: string;
  /** As the player reads it. */
  readonly name: string;
  /** The areas of the home key, up the neck: the windows that the position steps through. */
  readonly rows: (neck: Instrument, home: Home) => Row[];
  /** A collection in the area nearest a position. */
  readonly areaAt: (neck: Instrument, subject: Subject, position: number) => Area;
}

type Quality = 'major' | 'minor';

function qualityOf(tones: readonly Degree[]): Quality {
  return tones.includes('b3') && !tones.includes('3') ? 'minor' : 'major';
}

/** Names cells and gathers what there is to say about them. */
function areaOf(
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
function fillAt(
  neck: Instrument,
  subject: Subject,
  position: number,
  title = `position ${position}`,
  remark?: string
): Area {
  const cells = positionFill(neck, subject.collection.notes.map(pitchClass), position);
  return areaOf(subject, cells, { title, anchor: position, position, ...(remark ? { remark } : {}) });
}

function noShape(subject: Subject, what: string, position: number): string {
  return `${subject.collection.name} has no ${what}; it is laid out in position ${position}.`;
}

/** The position a hand takes for cells: at their lowest fret, or one above it where they need a stretch back. */
function handFor(neck: Instrument, cells: readonly Spot[]): number {
  if (cells.some(({ fret }) => fret === neck.capo)) return neck.capo + 1;
  const frets = cells.map(({ fret }) => fret);
  const low = Math.min(...frets);
  return Math.max(...frets) - low >= neck.span ? low + 1 : low;
}

/** The cells of a box with fingers, and the blue notes of a blues scale where the hand finds them. */
function boxCells(neck: Instrument, box: Box, { added }: Pentatonic): PositionCell[] {
  const position = handFor(neck, box.cells);
  const own = box.cells.map((cell): PositionCell => ({
    ...cell,
    finger: fingerAt(cell.fret, position, neck.capo),
    stretch: cell.fret > neck.capo && (cell.fret < position || cell.fret >= position + neck.span)
  }));
  const [low, high] = [box.cells[0]?.midi ?? 0, box.cells.at(-1)?.midi ?? 0];
  const blue = positionFill(neck, added, position).filter(({ midi }) => midi >= low && midi <= high);
  return [...own, ...blue];
}

/** The quality of the pentatonic that a collection's own root stands on. */
function ownQuality({ collection }: Subject, { first }: Pentatonic): Quality {
  return pitchClass(collection.root) === first ? 'minor' : 'major';
}

function boxArea(
  neck: Instrument,
  subject: Subject,
  position: number,
  titled: (box: Box, quality: Quality) => string
): Area | null {
  const pentatonic = pentatonicOf(subject.collection.root, subject.collection.notes);
  const box = pentatonic && nearestTo(boxesOf(neck, pentatonic), position);
  if (!box) return null;
  const quality = ownQuality(subject, pentatonic);
  const { minor, major, anchor } = box;
  return areaOf(subject, boxCells(neck, box, pentatonic), {
    title: titled(box, quality),
    anchor,
    position: handFor(neck, box.cells),
    box: { minor, major, form: formOf(box, quality) }
  });
}

/** Rows at the boxes of the home key's pentatonic; the last frets are too few for one. */
function boxRows(
  neck: Instrument,
  { tonic, mode }: Home,
  titled: (box: Box, quality: Quality) => string
): Row[] {
  return boxesOf(neck, minorPentatonic(relativeMinor(pitchClass(tonic), mode)))
    .filter(({ anchor }) => anchor + neck.span - 1 <= neck.frets)
    .map((box) => ({ title: titled(box, mode), position: box.anchor }));
}

function boxSchool(id: string, name: string, titled: (box: Box, quality: Quality) => string): Organisation {
  return {
    id,
    name,
    rows: (neck, home) => boxRows(neck, home, titled),
    areaAt: (neck, subject, position) => {
      const own = boxArea(neck, subject, position, titled);
      return own ?? fillAt(neck, subject, position, undefined, noShape(subject, 'boxes', position));
    }
  };
}

/** The area of the chord's root that lies nearest, named by its open major form; notes as in the boxes. */
function formArea(neck: Instrument, subject: Subject, position: number): Area {
  const quality = qualityOf(subject.naming.tones);
  const boxes = boxesOf(neck, minorPentatonic(relativeMinor(pitchClass(subject.naming.root), quality)));
  const nearest = nearestTo(boxes, position);
  const title = nearest ? `${formOf(nearest, quality)} form` : `position ${position}`;
  return boxArea(neck, subject, position, () => title) ?? fillAt(neck, subject, position, title);
}

/** Frets at which a pitch class lies on some strings. */
function fretsOf(neck: Instrument, pc: PitchClass, strings: readonly number[]): number[] {
  return strings.flatMap((string) => {
    const open = neck.strings[string - 1]!;
    return Array.from({ length: neck.frets + 1 }, (_, fret) => fret).filter(
      (fret) => fret >= neck.capo && (open + fret) % 12 === pc
    );
  });
}

interface Place extends Row {
  readonly anchor: number;
}

/** The places of a chord's 1, 3 and 5 on the two lowest strings: where the first finger goes. */
function toneplaces(neck: Instrument, root: NoteName, tones: readonly Degree[]): Place[] {
  const count = neck.strings.length;
  return tones
    .filter((tone) => ['1', '3', '5'].includes(DEGREES[tone].slot))
    .flatMap((tone) =>
      fretsOf(neck, pitchClass(spell(root, tone)), [count, count - 1]).map((fret): Place => ({
        title: `around the ${prettyDegree(tone)}`,
        position: fret,
        anchor: fret
      }))
    );
}

/** The roots of a chord on strings 6, 5 and 4. */
function rootPlaces(neck: Instrument, root: NoteName): (Place & { string: number })[] {
  return [6, 5, 4]
    .filter((string) => string <= neck.strings.length)
    .flatMap((string) =>
      fretsOf(neck, pitchClass(root), [string]).map((fret) => ({
        title: `root on ${string}`,
        position: fret,
        anchor: fret,
        string
      }))
    );
}

const HOME_TONES: Readonly<Record<Quality, readonly Degree[]>> = {
  major: ['1', '3', '5'],
  minor: ['1', 'b3', '5']
};

/** Places as rows up the neck: one a fret, and room for the hand above. */
function placeRows(neck: Instrument, places: readonly Place[]): Row[] {
  const byFret = new Map<number, Row>();
  for (const { title, position } of places) {
    if (position + neck.span - 1 <= neck.frets && !byFret.has(position))
      byFret.set(position, { title, position });
  }
  return [...byFret.values()].sort((a, b) => a.position - b.position);
}

/** One octave of the collection from the root that lies nearest on strings 6, 5 and 4. */
function rootArea(neck: Instrument, subject: Subject, position: number): Area {
  const place = nearestTo(rootPlaces(neck, subject.naming.root), position);
  if (!place) return fillAt(neck, subject, position);
  const from = neck.strings[place.string - 1]! + place.anchor;
  const cells = positionFill(neck, subject.collection.notes.map(pitchClass), place.anchor);
  const octave = cells.filter(({ midi }) => midi >= from && midi <= from + 12);
  return areaOf(subject, octave, { title: place.title, anchor: place.anchor, position: place.anchor });
}

/** The shape with three notes a string that starts nearest; fingered string by string. */
function threeArea(neck: Instrument, subject: Subject, position: number): Area {
  const shape = nearestTo(threeAString(neck, subject.collection.notes), position);
  if (!shape) {
    return fillAt(
      neck,
      subject,
      position,
      undefined,
      noShape(subject, 'shape of three notes a string', position)
    );
  }
  const cells = shape.cells.map((cell): PositionCell => {
    const frets = shape.cells.filter(({ string }) => string === cell.string).map(({ fret }) => fret);
    return { ...cell, finger: fingerRun(frets)[frets.indexOf(cell.fret)]!, stretch: false };
  });
  const { naming } = subject;
  const start = nameOf(shape.cells[0]!.midi % 12, naming).degree;
  return areaOf(subject, cells, {
    title: `from the ${prettyDegree(start)}`,
    anchor: shape.anchor,
    position: handFor(neck, shape.cells.slice(0, 6))
  });
}

function threeRows(neck: Instrument, { tonic, mode }: Home): Row[] {
  const scale = scaleOf(tonic, mode === 'major' ? 'major' : 'aeolian')!;
  return threeAString(neck, scale.notes)
    .filter(({ anchor }) => anchor + neck.span <= neck.frets)
    .map(({ anchor, cells }) => ({
      title: `from the ${ORDINALS[scale.notes.findIndex((note) => pitchClass(note) === cells[0]!.midi % 12)]!}`,
      position: anchor
    }));
}

const ORDINALS = ['1st', '2nd', '3rd', '4th', '5th', '6th', '7th'] as const;

/** All schools in one list: a new one is one new row. The first is the plain hand position. */
export const ORGANISATIONS: readonly Organisation[] = [
  {
    id: 'positions',
    name: 'Hand positions',
    rows: (neck, home) => boxRows(neck, home, ({ anchor }) => `position ${anchor}`),
    areaAt: (neck, subject, position) => fillAt(neck, subject, position)
  },
  boxSchool('minor-boxes', 'Boxes from the minor root', ({ minor }) => `box ${minor}`),
  boxSchool('major-boxes', 'Boxes from the major root', ({ major }) => `box ${major}`),
  {
    id: 'forms',
    name: 'Chord-form areas',
    rows: (neck, home) => boxRows(neck, home, (box, quality) => `${formOf(box, quality)} form`),
    areaAt: formArea
  },
  {
    id: 'around',
    name: 'Around the 1, 3 and 5',
    rows: (neck, { tonic, mode }) => placeRows(neck, toneplaces(neck, tonic, HOME_TONES[mode])),
    areaAt: (neck, subject, position) => {
      const place = nearestTo(toneplaces(neck, subject.naming.root, subject.naming.tones), position);
      return place ? fillAt(neck, subject, place.position, place.title) : fillAt(neck, subject, position);
    }
  },
  {
    id: 'roots',
    name: 'Root on string 6, 5 or 4',
    rows: (neck, { tonic }) => placeRows(neck, rootPlaces(neck, tonic)),
    areaAt: rootArea
  },
  { id: 'three', name: 'Three notes a string', rows: threeRows, areaAt: threeArea }
];

export function organisationOf(id: string): Organisation {
  return ORGANISATIONS.find((one) => one.id === id) ?? ORGANISATIONS[0]!;
}

/** All areas of a collection up the neck, in the windows of a school, each once. */
export function areasOf(neck: Instrument, organisation: Organisation, home: Home, subject: Subject): Area[] {
  const areas = organisation
    .rows(neck, home)
    .map(({ position }) => organisation.areaAt(neck, subject, position));
  return [...new Map(areas.map((area) => [area.anchor, area])).values()].sort((a, b) => a.anchor - b.anchor);
}

/** Where an area begins: its lowest fret on each string, from the lowest string up. */
export function borderOf(area: Area): { readonly string: number; readonly fret: number }[] {
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
export function placeOf({ string, fret }: { readonly string: number; readonly fret: number }): string {
  return `${string}:${fret}`;
}
