/**
 * How the notes of a line are named: by the chord of their moment, as a player reads them. Source: docs/music-rules.md, Pitch,
 * degree, spelling.
 */
import { nth } from '../base/list';
import { pitchClass, plainName, spell, type NoteName } from '../theory/note';
import type { LineNote } from './model';
import type { Ground, ReadNote } from './read';

const LETTERS = 'CDEFGAB';
const isDoubled = (name: NoteName) => name.length > 2;

/** A semitone under a note on the letter below it: F# under G. Null where that takes a double accidental. */
function leadingTone(goal: NoteName): NoteName | null {
  const letter = LETTERS.charAt((LETTERS.indexOf(goal.charAt(0)) + 6) % 7);
  const target = (pitchClass(goal) + 11) % 12;
  return [letter, `${letter}#`, `${letter}b`].find((name) => pitchClass(name) === target) ?? null;
}

/**
 * The notes of a line with their names: tones of the chord as it is spelled, others by their degree against it, a note that leads
 * up by a semitone on the letter below its goal. Names that were given stay. `read`: the notes as they are heard against the
 * chart, in the same order.
 */
export function spelledOver(
  notes: readonly LineNote[],
  read: readonly ReadNote[],
  { analysis }: Pick<Ground, 'analysis'>
): LineNote[] {
  const named = notes.map((note, i): LineNote => {
    const { change, degree } = nth(read, i);
    const chord = analysis.changes[change]?.chord;
    if (note.isNamed || !chord || degree === null) return note;
    const own = chord.notes[chord.pitchClasses.indexOf(note.midi % 12)];
    const name = own ?? spell(chord.root, degree);
    return { ...note, note: own === undefined && isDoubled(name) ? plainName(note.midi % 12) : name };
  });
  return named.map((note, i) => {
    const { leadsTo, degree, change } = nth(read, i);
    const goal = leadsTo === undefined ? undefined : named[leadsTo];
    const isTone = analysis.changes[change]?.chord?.pitchClasses.includes(note.midi % 12);
    if (note.isNamed || degree === null || isTone || !goal || goal.midi !== note.midi + 1) return note;
    return { ...note, note: leadingTone(goal.note) ?? note.note };
  });
}
