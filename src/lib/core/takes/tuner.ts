/** Tuning a guitar: which string a pitch belongs to, and how far it is off. */
import { nth } from '../base/list';
import type { StringNumber } from '../base/units';
import type { Instrument } from '../neck/tuning';

export interface TunerReading {
  /** 1 is the highest. */
  readonly string: StringNumber;
  /** How far the pitch lies above the string's own; 100 to a semitone. */
  readonly cents: number;
}

/** A string this near its pitch is in tune, in cents: less is hardly heard, and a string does not hold it. */
export const IN_TUNE = 4;
/** A pitch further from every string is none of them, in cents. */
const FURTHEST = 350;
/** Pitches that tell where a string is now. */
const STEADIED = 9;
/** A pitch this far from the middle of the last ones belongs to another string, in semitones. */
const ANOTHER = 0.8;

/** What the strings sound at when no finger is on them, as MIDI numbers, string 1 first; at the capo, where there is one. */
export function openPitches({ strings, capo, raised }: Instrument): number[] {
  return strings.map((midi) => midi + capo + raised);
}

/** The string that a pitch (MIDI number with fractions) is nearest to; null where it is near none. */
export function stringOf(pitch: number, neck: Instrument): TunerReading | null {
  const offs = openPitches(neck).map((own) => 100 * (pitch - own));
  const at = offs.reduce((best, cents, i) => (Math.abs(cents) < Math.abs(nth(offs, best)) ? i : best), 0);
  const cents = nth(offs, at);
  return Math.abs(cents) <= FURTHEST ? { string: at + 1, cents: Math.round(2 * cents) / 2 } : null;
}

/** The last pitches with one more, as far as they are of one string: null tells nothing and takes nothing away. */
export function steadied(pitches: readonly number[], pitch: number | null): readonly number[] {
  if (pitch === null) return pitches;
  const middle = middleOf(pitches);
  const own = middle !== null && Math.abs(pitch - middle) > ANOTHER ? [] : pitches;
  return [...own, pitch].slice(-STEADIED);
}

/** The middle of some pitches; null of none. */
export function middleOf(pitches: readonly number[]): number | null {
  const sorted = [...pitches].sort((a, b) => a - b);
  return sorted[sorted.length >> 1] ?? null;
}
