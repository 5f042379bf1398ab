/**
 * Moving a line: to other chords, another key, another part of the neck. Shifted it keeps every interval; by degrees it keeps what
 * each note is (a ♭3 becomes a 3); led it goes to the nearest tones of what is played there and keeps its contour. Source:
 * docs/music-rules.md, Moving a line.
 */
import type { ScaleChoice } from '../approaches/choice';
import { nth, sure } from '../base/list';
import type { Midi } from '../base/units';
import type { Key } from '../harmony/key';
import { lowestFret, soundAt, type Instrument } from '../neck/tuning';
import type { Chord } from '../theory/chord';
import { DEGREES, degreeOf, type Degree } from '../theory/degree';
import { MODES } from '../theory/mode';
import { midiName, pitchClass, plainName, semitonesUp, type NoteName, type PitchClass } from '../theory/note';
import { cheapestWay } from './cheapest';
import type { LineNote } from './model';
import { frettedPitch, placeNotes, type PlacedNote } from './place';

export const MOVES = ['shifted', 'degrees', 'led'] as const;
export type How = (typeof MOVES)[number];

/** Where a moved line lies: the same strings, the same area, or wherever the neck has it. */
export const MOVED_WHERE = ['along', 'in place', 'every octave'] as const;
export type MovedWhere = (typeof MOVED_WHERE)[number];

/** What degrees are counted in: a root, the chord on it, and where each number from 1 to 7 stands. */
export interface Measure {
  readonly root: PitchClass;
  readonly tones: readonly Degree[];
  /** Semitones above the root, by number; the first is not used. */
  readonly numbers: readonly number[];
  /** The pitch classes at home there. */
  readonly home: readonly PitchClass[];
}

const OCTAVE = 12;
/** Where the numbers stand of which nothing else is known. */
const MAJOR = [0, 0, 2, 4, 5, 7, 9, 11];
/** The wider way round the octave begins here. */
const NEAR = 6;

/** Semitones from one pitch class to another the short way: −5 to 6. */
export function nearestShift(from: PitchClass, to: PitchClass): number {
  const up = semitonesUp(from, to);
  return up > NEAR ? up - OCTAVE : up;
}

/** The number a degree is counted as: a 9 is a 2, a 13 a 6. */
function numberOf(degree: Degree): number {
  const number = Number(sure(/\d+$/.exec(degree), `the number of ${degree}`)[0]);
  return number > 7 ? number - 7 : number;
}

/** The letter of a note above that of the root, from 1. */
const letterNumber = (root: NoteName, note: NoteName) =>
  ((note.charCodeAt(0) - root.charCodeAt(0) + 7) % 7) + 1;

/** A chord with what is played over it. Its own tones count first, then the notes of the choice by their letters. */
export function measureOf(chord: Chord, choice: Pick<ScaleChoice, 'notes'> | null): Measure {
  const numbers = [...MAJOR];
  const isKnown = new Set<number>();
  const know = (number: number, semitones: number) => {
    if (isKnown.has(number)) return;
    isKnown.add(number);
    numbers[number] = semitones;
  };
  for (const tone of chord.tones) know(numberOf(tone), DEGREES[tone].semitones);
  const notes = choice?.notes ?? [];
  for (const note of notes) know(letterNumber(chord.root, note), semitonesUp(chord.rootPc, pitchClass(note)));
  return {
    root: chord.rootPc,
    tones: chord.tones,
    numbers,
    home: notes.length ? notes.map(pitchClass) : chord.pitchClasses
  };
}

/** A key: degrees are those of its scale. */
export function measureOfKey({ tonic, mode }: Key): Measure {
  const root = pitchClass(tonic);
  const { steps, isMinor } = MODES[mode];
  return {
    root,
    tones: ['1', isMinor ? 'b3' : '3', '5', steps.includes(11) ? '7' : 'b7'],
    numbers: [0, ...steps],
    home: steps.map((step) => (root + step) % OCTAVE)
  };
}

/** The pitch that is in `to` what a pitch is in `from`, nearest to where the roots' motion takes it. */
export function byDegree(midi: Midi, from: Measure, to: Measure): number {
  const above = semitonesUp(from.root, midi % OCTAVE);
  const number = numberOf(degreeOf(above, from.tones));
  const altered = nearestShift(nth(from.numbers, number), above);
  const wanted = nth(to.numbers, number) + altered;
  return midi + nearestShift(from.root, to.root) + nearestShift(above, (wanted + OCTAVE) % OCTAVE);
}

/** Whether a pitch stands where its number does not: a chromatic tone there. */
function isChromatic(midi: Midi, { root, tones, numbers }: Measure): boolean {
  const above = semitonesUp(root, midi % OCTAVE);
  return numbers[numberOf(degreeOf(above, tones))] !== above;
}

/**
 * Pitches of a line moved degree by degree, each between two measures of its own. A chromatic tone that leads by a semitone into the
 * next note goes on leading into it so.
 */
export function byDegrees(
  pitches: readonly number[],
  measures: readonly (readonly [Measure, Measure])[]
): number[] {
  const moved: number[] = [];
  for (let i = pitches.length - 1; i >= 0; i--) {
    const midi = nth(pitches, i);
    const [from, to] = nth(measures, i);
    const step = (pitches[i + 1] ?? Infinity) - midi;
    const leads = Math.abs(step) === 1 && isChromatic(midi, from);
    moved[i] = leads ? nth(moved, i + 1) - step : byDegree(midi, from, to);
  }
  return moved;
}

/** What a line that is led pays for, in semitones: a contour that is lost is dearer than any distance. */
const CONTOUR_LOST = 100;
/** How far a led note goes from where it was. */
const FARTHEST = 7;

/**
 * Pitches led to the nearest of those at home where each note goes, rising where they rose, falling where they fell and staying
 * where they stayed, as far as that can be. `home` gives the pitch classes for each note.
 */
export function led(pitches: readonly number[], home: readonly (readonly PitchClass[])[]): number[] {
  const layers = pitches.map((midi, i) => {
    const near = Array.from({ length: 2 * FARTHEST + 1 }, (_, n) => midi - FARTHEST + n);
    const found = near.filter((one) => nth(home, i).includes(((one % OCTAVE) + OCTAVE) % OCTAVE));
    return found.length ? found : [midi];
  });
  return cheapestWay(
    layers,
    (to, i) => Math.abs(to - nth(pitches, i)),
    (from, to, i) =>
      Math.sign(to - from) === Math.sign(nth(pitches, i) - nth(pitches, i - 1)) ? 0 : CONTOUR_LOST
  );
}

/** A note at another pitch, its bend along with it; where it lies is open. */
export function atPitch({ place: _, ...note }: LineNote, midi: Midi, start = note.start): LineNote {
  return {
    ...note,
    start,
    midi,
    note: plainName(((midi % OCTAVE) + OCTAVE) % OCTAVE),
    ...(note.bend ? { bend: { ...note.bend, from: note.bend.from + midi - note.midi } } : {}),
    ...(note.release ? { release: { to: note.release.to + midi - note.midi } } : {})
  };
}

/** Moved onto the neck, or why it cannot be. */
export type MovedOnNeck =
  | { readonly notes: readonly PlacedNote[]; readonly octave: number }
  | { readonly notes: null; readonly message: string };

/** Octaves in which a moved line is tried, the nearest first. */
const OCTAVES = [0, -1, 1, -2, 2, -3, 3];

/**
 * Lays a moved line on the neck. `moved` are the notes of `from` at their new pitches, in the same order. Along the neck they stay
 * on their strings; in place they stay in the frets of `from`, or in a position; else they lie where the hand has it easiest. Where
 * `anyOctave`, the nearest octave that can be played is taken.
 */
export function laidOut(
  from: readonly LineNote[],
  moved: readonly LineNote[],
  wish: {
    readonly neck: Instrument;
    readonly where: MovedWhere;
    readonly position?: number | undefined;
    readonly anyOctave: boolean;
  }
): MovedOnNeck {
  let message: string | undefined;
  for (const octave of wish.anyOctave ? OCTAVES : [0]) {
    const raised = moved.map((note) => atPitch(note, note.midi + OCTAVE * octave));
    const laid = wish.where === 'along' ? alongStrings(from, raised, wish.neck) : inArea(from, raised, wish);
    if (laid.notes) return { notes: laid.notes, octave };
    message ??= laid.message;
  }
  return { notes: null, message: message! };
}

/** In every octave that the neck has. */
export function everyOctave(
  from: readonly LineNote[],
  moved: readonly LineNote[],
  wish: { readonly neck: Instrument; readonly position?: number | undefined }
): { readonly notes: readonly PlacedNote[]; readonly octave: number }[] {
  return [...OCTAVES]
    .sort((a, b) => a - b)
    .flatMap((octave) => {
      const raised = moved.map((note) => atPitch(note, note.midi + OCTAVE * octave));
      const laid = inArea(from, raised, { ...wish, where: 'every octave' });
      return laid.notes ? [{ notes: laid.notes, octave }] : [];
    });
}

type Laid = { readonly notes: readonly PlacedNote[] } | { readonly notes: null; readonly message: string };

function alongStrings(from: readonly LineNote[], moved: readonly LineNote[], neck: Instrument): Laid {
  const placed: LineNote[] = [];
  for (const [i, note] of moved.entries()) {
    const string = nth(from, i).place?.string;
    if (string === undefined)
      return { notes: null, message: 'The line has no strings to move along; place it first.' };
    const fret = frettedPitch(note) - soundAt(neck, string, 0);
    if (fret < lowestFret(neck) || fret > neck.frets) {
      const message = `${midiName(note.midi)} is not on string ${string}; move the line in place.`;
      return { notes: null, message };
    }
    placed.push({ ...note, place: { string, fret } });
  }
  return best(placed, { neck, keepsPlaces: true });
}

/** Frets on either side of a line that still belong to its area, so that a hand has its span. */
const MARGIN = 1;

function inArea(
  from: readonly LineNote[],
  moved: readonly LineNote[],
  { neck, where, position }: { neck: Instrument; where: MovedWhere; position?: number | undefined }
): Laid {
  if (position !== undefined) return best(moved, { neck, position });
  const frets = from.flatMap(({ place }) => (place && place.fret > neck.capo ? [place.fret] : []));
  if (where === 'every octave' || frets.length === 0) return best(moved, { neck });
  const [low, high] = [Math.min(...frets), Math.max(...frets)];
  const wide = Math.max(0, neck.span - (high - low + 1));
  const window = {
    from: Math.max(lowestFret(neck), low - MARGIN - Math.ceil(wide / 2)),
    to: Math.min(neck.frets, high + MARGIN + Math.floor(wide / 2))
  };
  return best(moved, { neck, window });
}

function best(
  notes: readonly LineNote[],
  wish: Omit<Parameters<typeof placeNotes>[1], 'alternatives'>
): Laid {
  const { places, noPlace } = placeNotes(notes, { ...wish, alternatives: 1 });
  return places[0] ?? { notes: null, message: noPlace?.message ?? 'The line cannot be played there.' };
}
