/** Tunings and cells. Strings are numbered from 1 (highest) to n (lowest). */
import { nth, sure } from '../base/list';
import type { Fret, Midi, StringNumber } from '../base/units';
import { midiOf } from '../theory/note';

/** A guitar under a player's hand. */
export interface Instrument {
  /**
   * MIDI number of each open string as the chart is written; index 0 is string 1, the highest. Where chords are written as they are
   * fingered, what a string sounds at the capo is written as if it were open.
   */
  readonly strings: readonly number[];
  /** The last fret. */
  readonly frets: number;
  /** The fret the capo sits at, 0 for none; frets are counted from the nut all the same. */
  readonly capo: number;
  /** Frets that the hand covers without a stretch; 4 by the rules. */
  readonly span: number;
  /** Whether open strings are played. */
  readonly openStrings: boolean;
  /** Semitones that everything sounds above what is written: the capo's, where chords are written as they are fingered. */
  readonly raised: number;
}

/** Whether a chart's chords are written as they sound or as they are fingered behind the capo. */
export const CAPO_CHORDS = ['sounding', 'fingered'] as const;
export type CapoChords = (typeof CAPO_CHORDS)[number];

/** A place on the neck. */
export interface Spot {
  readonly string: StringNumber;
  readonly fret: Fret;
  readonly midi: Midi;
}

/** Named tunings, written as players do: lowest string first. */
export const TUNINGS: Readonly<Record<string, string>> = {
  standard: 'E2 A2 D3 G3 B3 E4',
  'drop D': 'D2 A2 D3 G3 B3 E4',
  'half-step down': 'Eb2 Ab2 Db3 Gb3 Bb3 Eb4',
  'whole-step down': 'D2 G2 C3 F3 A3 D4',
  DADGAD: 'D2 A2 D3 G3 A3 D4',
  'open G': 'D2 G2 D3 G3 B3 D4',
  'all fourths': 'E2 A2 D3 G3 C4 F4',
  'seven-string': 'B1 E2 A2 D3 G3 B3 E4',
  bass: 'E1 A1 D2 G2'
};

export const DEFAULT_FRETS = 22;
export const MIN_FRETS = 12;
export const MAX_FRETS = 24;
export const DEFAULT_SPAN = 4;
export const MIN_SPAN = 3;
export const MAX_SPAN = 6;
const MIN_STRINGS = 3;
const MAX_STRINGS = 10;
/** Below and above these no string of a guitar or bass sounds. */
const LOWEST_STRING = 21;
const HIGHEST_STRING = 88;

export const STANDARD: Instrument = sure(readInstrument({}), 'readInstrument');

/**
 * Reads a tuning: a name of the table in any case, or notes with octaves, lowest string first ("D2 A2 D3 G3 B3 E4").
 * Null where it is neither, or names impossible strings.
 */
export function readTuning(text: string): number[] | null {
  const wanted = text.trim().toLowerCase();
  const named = Object.keys(TUNINGS).find((name) => name.toLowerCase() === wanted);
  const notes = (named ? sure(TUNINGS[named], 'TUNINGS') : text.trim()).split(/[\s,]+/);
  if (notes.length < MIN_STRINGS || notes.length > MAX_STRINGS) return null;
  const strings = notes.map((note) => midiOf(note.replace('♭', 'b').replace('♯', '#'))).reverse();
  const possible = strings.every((midi) => midi !== null && midi >= LOWEST_STRING && midi <= HIGHEST_STRING);
  return possible ? (strings as number[]) : null;
}

/** An instrument from loose parts; null where the tuning cannot be read or the numbers are out of range. */
export function readInstrument(parts: {
  tuning?: string | undefined;
  frets?: number | undefined;
  capo?: number | undefined;
  span?: number | undefined;
  openStrings?: boolean | undefined;
  capoChords?: CapoChords | undefined;
}): Instrument | null {
  const open = readTuning(parts.tuning ?? 'standard');
  const { frets = DEFAULT_FRETS, capo = 0, span = DEFAULT_SPAN, openStrings = true } = parts;
  const isPossible =
    frets >= MIN_FRETS &&
    frets <= MAX_FRETS &&
    capo >= 0 &&
    capo <= frets - 5 &&
    span >= MIN_SPAN &&
    span <= MAX_SPAN;
  if (!open || !isPossible) return null;
  const raised = parts.capoChords === 'fingered' ? capo : 0;
  return { strings: open.map((midi) => midi - raised), frets, capo, span, openStrings, raised };
}

/** The pitch of a string at a fret. */
export function soundAt({ strings }: Instrument, string: StringNumber, fret: Fret): number {
  return nth(strings, string - 1) + fret;
}

/** The lowest fret a string is played at: open (at the capo), or the one above where open strings are not played. */
export function lowestFret({ capo, openStrings }: Instrument): number {
  return openStrings ? capo : capo + 1;
}

/** Every place of the neck in the frets `from`…`to` (both in), string 1 first, low fret first. */
export function spots(neck: Instrument, from: number, to: number): Spot[] {
  const first = Math.max(from, lowestFret(neck));
  const last = Math.min(to, neck.frets);
  return neck.strings.flatMap((_, index) =>
    Array.from({ length: Math.max(0, last - first + 1) }, (_, i): Spot => {
      const fret = first + i;
      return { string: index + 1, fret, midi: soundAt(neck, index + 1, fret) };
    })
  );
}
