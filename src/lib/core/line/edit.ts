/**
 * Writing a line: pure edits, each giving the line anew. One voice is kept: what is put in ends what sounds there, and ends itself where
 * the next note begins. Source: docs/music-rules.md, Writing a line.
 */
import { nth } from '../base/list';
import type { Fret, Midi, StringNumber, Ticks } from '../base/units';
import type { Meter } from '../chart/model';
import { soundAt, type Instrument } from '../neck/tuning';
import { plainName } from '../theory/note';
import { endOf, ordered, TICKS, type LineNote } from './model';
import { atPitch } from './move';

export interface Stretch {
  /** In ticks; `to` is the first that is left out. */
  readonly from: number;
  readonly to: number;
}

/** Notes at once that a line has at most. */
const AT_ONCE = 2;

const isIn =
  ({ from, to }: Stretch) =>
  (note: LineNote) =>
    note.start >= from && note.start < to;
const startsAfter = (notes: readonly LineNote[], time: number) =>
  notes.reduce((next, { start }) => (start > time ? Math.min(next, start) : next), Infinity);

/** The notes that begin at a time, the lower first. */
export const notesAt = (notes: readonly LineNote[], at: number): readonly LineNote[] =>
  notes.filter(({ start }) => start === at);

/** Ends what sounds over a time there. */
const endedAt = (notes: readonly LineNote[], at: number): LineNote[] =>
  notes.map((note) => (note.start < at && endOf(note) > at ? { ...note, length: at - note.start } : note));

/** A fret on a string as a note. */
export function noteOn(
  neck: Instrument,
  string: StringNumber,
  fret: Fret,
  start: Ticks,
  length: Ticks
): LineNote {
  const midi = soundAt(neck, string, fret);
  return { start, length, midi, note: plainName(((midi % 12) + 12) % 12), place: { string, fret } };
}

/**
 * Puts a note in. Where one begins there already on the same string it is replaced, on another string the two are a double stop; of two
 * the one farther from it makes room. It is no longer than the silence, or the notes, it covers up to the next beginning.
 */
export function withNote(notes: readonly LineNote[], note: LineNote): LineNote[] {
  const here = notesAt(notes, note.start);
  const others = here.filter(
    ({ place, midi }) => midi !== note.midi && (!place || place.string !== note.place?.string)
  );
  const stays = [...others]
    .sort((a, b) => Math.abs(a.midi - note.midi) - Math.abs(b.midi - note.midi))
    .slice(0, AT_ONCE - 1);
  // A rhythm that is written stays; only what is new takes the length it is given.
  const length = Math.min(here[0]?.length ?? note.length, startsAfter(notes, note.start) - note.start);
  const rest = endedAt(
    notes.filter(({ start }) => start !== note.start),
    note.start
  );
  return ordered([...rest, ...stays.map((one) => ({ ...one, length })), { ...note, length }]);
}

/** Takes out what begins in a stretch; what sounds into it stays. */
export function without(notes: readonly LineNote[], stretch: Stretch): LineNote[] {
  return notes.filter((note) => !isIn(stretch)(note));
}

/** Gives the notes that begin at a time another length, as far as there is room until the next. */
export function withLength(notes: readonly LineNote[], at: number, length: Ticks): LineNote[] {
  const most = startsAfter(notes, at) - at;
  return notes.map((note) => (note.start === at ? { ...note, length: Math.min(length, most) } : note));
}

/** The notes that begin in a stretch, timed from its start; none sounds past its end. */
export function copied(notes: readonly LineNote[], stretch: Stretch): LineNote[] {
  return notes.filter(isIn(stretch)).map((note) => ({
    ...note,
    start: note.start - stretch.from,
    length: Math.min(note.length, stretch.to - note.start)
  }));
}

/** Puts a passage of a length in at a time, in the place of what begins there, and of what begins where it leads in. */
export function pasted(
  notes: readonly LineNote[],
  passage: readonly LineNote[],
  at: number,
  length: Ticks
): LineNote[] {
  const from = at + Math.min(0, ...passage.map(({ start }) => start));
  const rest = endedAt(without(notes, { from, to: at + length }), from);
  const next = startsAfter(rest, at + length - 1);
  return ordered([
    ...rest,
    ...passage.map((note) => {
      const start = note.start + at;
      return { ...note, start, length: Math.min(note.length, next - start) };
    })
  ]);
}

/** Moves the notes of a stretch by semitones; on their strings where those have the fret, else their place is open. */
export function transposed(
  notes: readonly LineNote[],
  stretch: Stretch,
  semitones: number,
  neck: Instrument
): LineNote[] {
  return notes.map((note) => {
    if (!isIn(stretch)(note)) return note;
    const moved = atPitch(note, note.midi + semitones);
    if (!note.place) return moved;
    const fret = note.place.fret + semitones;
    const lies = fret >= neck.capo && fret <= neck.frets;
    return lies ? { ...moved, place: { string: note.place.string, fret } } : moved;
  });
}

/** Cuts the notes that begin at a time into two of half their length, the second struck again. */
export function split(notes: readonly LineNote[], at: number): LineNote[] {
  return ordered(
    notes.flatMap((note) => {
      if (note.start !== at || note.length < 2) return [note];
      const half = Math.floor(note.length / 2);
      const { slide: _, slur: _slur, tie: _tie, bend: _bend, release: _release, ...again } = note;
      return [
        { ...note, length: half },
        { ...again, start: at + half, length: note.length - half }
      ];
    })
  );
}

/** Makes one of what begins in a stretch: the first notes last as long as all of them. */
export function joinedIn(notes: readonly LineNote[], stretch: Stretch): LineNote[] {
  const own = notes.filter(isIn(stretch));
  const first = own[0];
  if (!first) return [...notes];
  const end = Math.max(...own.map(endOf));
  return notes.flatMap((note) => {
    if (!isIn(stretch)(note)) return [note];
    return note.start === first.start ? [{ ...note, length: end - note.start }] : [];
  });
}

/** Takes a note to another time and pitch; it stays one voice. Null where two notes begin there already. */
export function moved(
  notes: readonly LineNote[],
  index: number,
  start: Ticks,
  midi: Midi
): LineNote[] | null {
  const note = nth(notes, index);
  const rest = notes.filter((_, i) => i !== index);
  const here = notesAt(rest, start).filter((other) => other.midi !== midi);
  if (here.length >= AT_ONCE || start < 0) return null;
  const to = midi === note.midi ? { ...note, start } : atPitch(note, midi, start);
  return withNote(rest, { ...to, length: here[0]?.length ?? note.length });
}

/** The ways of playing that a note is given and that are taken away again. */
export const TECHNIQUES = ['slide', 'slur', 'vibrato', 'ghost', 'tie'] as const;
export type Technique = (typeof TECHNIQUES)[number];

/** Gives the notes that begin at a time a way of being played, or takes it away where the first has it. */
export function played(notes: readonly LineNote[], at: number, technique: Technique): LineNote[] {
  const has = notesAt(notes, at)[0]?.[technique] === true;
  return notes.map((note) => {
    if (note.start !== at) return note;
    const { [technique]: _, ...rest } = note;
    return has ? rest : { ...rest, [technique]: true as const };
  });
}

/** What a bend goes through as it is pressed again: in semitones up, and whether it is let down. */
const BENDS: readonly (readonly [number, boolean])[] = [
  [0, false],
  [1, false],
  [2, false],
  [2, true]
];

/**
 * Bends the highest note that begins at a time: by a semitone, a whole tone, that let down again, not at all. The fretted pitch stays;
 * what sounds is what it is bent to.
 */
export function bent(notes: readonly LineNote[], at: number): LineNote[] {
  const target = notesAt(notes, at).at(-1);
  if (!target) return [...notes];
  const fretted = target.bend?.from ?? target.midi;
  const now = BENDS.findIndex(
    ([up, isLetDown]) => up === target.midi - fretted && isLetDown === !!target.release
  );
  const [up, isLetDown] = nth(BENDS, (now + 1) % BENDS.length);
  return ordered(
    notes.map((note) => {
      if (note !== target) return note;
      const { bend: _, release: _release, ...rest } = note;
      const midi = fretted + up;
      return {
        ...rest,
        midi,
        note: plainName(((midi % 12) + 12) % 12),
        ...(up ? { bend: { from: fretted } } : {}),
        ...(isLetDown ? { release: { to: fretted } } : {})
      };
    })
  );
}

/** Lengths that are written, by letter: parts of a whole note. */
export const WRITTEN_LENGTHS = [
  { letter: 'w', value: 1, name: 'whole' },
  { letter: 'h', value: 2, name: 'half' },
  { letter: 'q', value: 4, name: 'quarter' },
  { letter: 'e', value: 8, name: 'eighth' },
  { letter: 's', value: 16, name: 'sixteenth' }
] as const;
export type WrittenValue = (typeof WRITTEN_LENGTHS)[number]['value'];

/** How long the next note is written. */
export interface WrittenLength {
  readonly value: WrittenValue;
  readonly isDotted: boolean;
  readonly isTriplet: boolean;
}

/** Ticks of a written length, where the beat is one of so many in a whole note. */
export function lengthOf(
  { value, isDotted, isTriplet }: WrittenLength,
  { unit }: Pick<Meter, 'unit'>
): number {
  const plain = (TICKS * unit) / value;
  return plain * (isDotted ? 1.5 : 1) * (isTriplet ? 2 / 3 : 1);
}
