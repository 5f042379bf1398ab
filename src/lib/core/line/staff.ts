/** Notes on a staff: the line or space of each, and where an accidental is written. */
import { nth } from '../base/list';
import type { LineNote } from './model';
import type { WrittenBar } from './notation';

export type Letter = 'C' | 'D' | 'E' | 'F' | 'G' | 'A' | 'B';

/** A pitch as a staff has it: Cb4 is B3 as it sounds. */
export interface StaffPitch {
  readonly letter: Letter;
  /** Semitones above the letter, -2 to 2. */
  readonly alter: number;
  readonly octave: number;
}

const LETTERS: readonly Letter[] = ['C', 'D', 'E', 'F', 'G', 'A', 'B'];
/** The letters in the order in which a key signature sharpens them; it flattens them from behind. */
const SHARPENED: readonly Letter[] = ['F', 'C', 'G', 'D', 'A', 'E', 'B'];

/** Where a note stands on a staff: its letter, octave and accidental. */
export function staffPitch({ midi, note }: Pick<LineNote, 'midi' | 'note'>): StaffPitch {
  const letter = note[0] as Letter;
  const alter = [...note.slice(1)].reduce((sum, sign) => sum + (sign === '#' ? 1 : -1), 0);
  // The letter itself sounds so many semitones away; its octave is that of the letter.
  return { letter, alter, octave: Math.floor((midi - alter) / 12) - 1 };
}

/** Steps of the staff above middle C's own place: E4 is 2. */
export const stepOf = ({ letter, octave }: StaffPitch): number =>
  (octave - 4) * LETTERS.length + LETTERS.indexOf(letter);

/** How a key signature alters each letter; `fifths` are its sharps, negative for flats. */
export function signature(fifths: number): Readonly<Record<Letter, number>> {
  const altered = fifths > 0 ? SHARPENED.slice(0, fifths) : SHARPENED.slice(SHARPENED.length + fifths);
  const by = Math.sign(fifths);
  return Object.fromEntries(
    LETTERS.map((letter) => [letter, fifths !== 0 && altered.includes(letter) ? by : 0])
  ) as Record<Letter, number>;
}

/**
 * The accidentals that have to be written, by piece and by note of the piece: where a note is altered otherwise than the signature or
 * the bar has it so far. What is tied over needs none. Null for none.
 */
export function accidentalsOf(
  { pieces }: Pick<WrittenBar, 'pieces'>,
  notes: readonly LineNote[],
  fifths: number
): readonly (readonly (number | null)[])[] {
  const key = signature(fifths);
  const inBar = new Map<string, number>();
  return pieces.map((piece) =>
    piece.notes.map((index) => {
      const { letter, alter, octave } = staffPitch(nth(notes, index));
      const place = `${letter}${octave}`;
      const was = inBar.get(place) ?? key[letter];
      if (piece.isTied) return null;
      inBar.set(place, alter);
      return was === alter ? null : alter;
    })
  );
}
