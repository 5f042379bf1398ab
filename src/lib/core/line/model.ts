/**
 * A line: a written run of notes over changes. Times are whole ticks of written time, 960 a beat; swing is a matter of
 * sounding (`sound.ts`), never of writing. Rests are gaps; two notes with one start are a double stop.
 */
import type { Beats, Fret, Midi, StringNumber, Ticks } from '../base/units';
import type { Meter } from '../chart/model';
import { plainName, type NoteName } from '../theory/note';

/** Ticks of a beat: thirds, quarters and fifths of it are whole. */
export const TICKS = 960;

/** Where a note is played. */
export interface NotePlace {
  readonly string: StringNumber;
  readonly fret: Fret;
  /** 1 to 4, 0 for an open string. */
  readonly finger?: number;
}

/** What a note is there for, where it was made on purpose. */
export type Purpose = 'target' | 'leave' | 'approach' | 'run';

export interface LineNote {
  readonly start: Ticks;
  readonly length: Ticks;
  readonly midi: Midi;
  /** Its spelling. */
  readonly note: NoteName;
  readonly place?: NotePlace;
  /** It goes on from the note before without being struck. */
  readonly tie?: true;
  /**
   * It is bent up from a lower pitch (MIDI), which is the one that is fretted. With `cents`, up to 50, it only leans up from its own pitch:
   * a curl, which makes no new pitch.
   */
  readonly bend?: {
    readonly from: Midi;
    readonly cents?: number;
  };
  /** After it was bent it is let down to a pitch (MIDI), the fretted one or one above it. */
  readonly release?: { readonly to: Midi };
  /** It is slid into from the note before, on one string. */
  readonly slide?: true;
  /** It is hammered on or pulled off from the note before, on one string. */
  readonly slur?: true;
  readonly vibrato?: true;
  /** Touched rather than struck: more rhythm than pitch. */
  readonly ghost?: true;
  readonly purpose?: Purpose;
  /** Its name was given, and stays whatever chord it sounds on. */
  readonly isNamed?: true;
}

export interface Line {
  readonly meter: Meter;
  /** In the order of their starts; of a double stop the lower note first. */
  readonly notes: readonly LineNote[];
}

/** Beats that are read as a grid point though they were written with few decimals lie this near it, in ticks. */
const SNAP = 4;
/** The grid of thirty-seconds and sixteenth triplets, in ticks. */
const GRID = 40;

/** Ticks of a time in beats; 0.33 is the triplet. */
export function ticksOf(beats: Beats): Ticks {
  const ticks = Math.round(beats * TICKS);
  const near = Math.round(ticks / GRID) * GRID;
  return Math.abs(ticks - near) <= SNAP ? near : ticks;
}

/** Ticks as beats. */
export function beatsOf(ticks: Ticks): Beats {
  return ticks / TICKS;
}

/** A length as a fraction of beats that cannot be made smaller: an eighth triplet is 1 over 3. */
export function fractionOf(ticks: Ticks): { readonly above: number; readonly below: number } {
  const divide = (a: number, b: number): number => (b === 0 ? a : divide(b, a % b));
  const common = divide(ticks, TICKS);
  return { above: ticks / common, below: TICKS / common };
}

/** When a note ends. */
export const endOf = ({ start, length }: LineNote): Ticks => start + length;

/**
 * Notes in a beat, from those in a quarter, where the beat is one of so many in a whole note: the eighths of 6/8 are its beats. Where a
 * beat is an eighth it has no triplets of its own; the beats are.
 */
export function notesInBeat(perQuarter: number, unit: number): number {
  return unit > 4 && perQuarter === 3 ? 1 : (perQuarter * 4) / unit;
}

/** Notes in the order of a line. */
export function ordered(notes: readonly LineNote[]): LineNote[] {
  return [...notes].sort((a, b) => a.start - b.start || a.midi - b.midi);
}

/** A note as far as it is heard, spelled plainly. */
export function noteOf(start: Ticks, length: Ticks, midi: Midi): LineNote {
  return { start, length, midi, note: plainName(midi % 12) };
}

/** A tone of the neck as a note of a line. */
export function written(
  tone: NotePlace & { readonly midi: Midi; readonly note: NoteName },
  start: Ticks,
  length: Ticks,
  purpose: Purpose
): LineNote {
  const { string, fret, finger, midi, note } = tone;
  const place = { string, fret, ...(finger === undefined ? {} : { finger }) };
  return { start, length, midi, note, place, purpose };
}
