/** The notes of a line over one change. */
import type { Change } from '../chart/unroll';
import { beatsOf, endOf, ticksOf, type LineNote } from './model';

/** The notes that begin over a change or are held into it, by their places in the line. */
export function notesOver(
  notes: readonly LineNote[],
  { start, beats }: Pick<Change, 'start' | 'beats'>
): { readonly index: number; readonly note: LineNote }[] {
  const [from, to] = [ticksOf(start), ticksOf(start + beats)];
  return notes.flatMap((note, index) =>
    (note.start >= from && note.start < to) || (note.start < from && endOf(note) > from)
      ? [{ index, note }]
      : []
  );
}

/** The beat of a change on which a note begins, from 1; at least 1 for what is held into it. */
export const beatIn = (note: LineNote, { start }: Pick<Change, 'start'>): number =>
  Math.max(1, Number((beatsOf(note.start) - start + 1).toFixed(2)));
