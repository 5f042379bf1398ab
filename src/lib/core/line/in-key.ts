/** A line in another key: every interval kept, along its strings, in the nearest octave that it can be played in. */
import { nth } from '../base/list';
import { transposeNote } from '../chart/transpose';
import type { Instrument } from '../neck/tuning';
import type { Home } from '../theory/tonic';
import type { LineNote } from './model';
import { atPitch, laidOut, nearestShift } from './move';

/** `home`: the key it stands in, from which names are spelled; `shift` in semitones up. Notes that fit on no string have no place. */
export function lineInKey(
  notes: readonly LineNote[],
  home: Home,
  shift: number,
  neck: Instrument
): readonly LineNote[] {
  if (shift % 12 === 0) return notes;
  const moved = notes.map((note) => atPitch(note, note.midi + nearestShift(0, shift)));
  const along = laidOut(notes, moved, { neck, where: 'along', anyOctave: true });
  return (along.notes ?? moved).map((note, i) => ({
    ...note,
    note: transposeNote(nth(notes, i).note, home, shift)
  }));
}
