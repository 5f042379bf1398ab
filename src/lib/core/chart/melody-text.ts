/** The words of a melody in a chart's text. */
import { sure } from '../base/list';
import { readNote } from '../theory/note';
import { asciiAccidentals } from '../theory/typeset';

/**
 * A note name, an octave where it is said, and a length in beats behind a colon: "Bb4:1.5", "c:1/2", "r:2". A stroke before it holds the
 * note before on: "~Bb4:2".
 */
export const MELODY_NOTE =
  /^(~?)(r|[A-Ga-g](?:##|bb|[#b♯♭])?)(\d)?(?::(\d{1,2}(?:\.\d{1,4})?|\d{1,2}\/\d{1,2}))?$/u;
/** Moves every note name of a melody as a function moves notes with their octaves; everything else stays as typed. */
export function movedMelody(text: string, move: (note: string) => string): string {
  return text.replaceAll(/\S+/g, (word) => {
    const match = MELODY_NOTE.exec(word);
    const [, tie = '', name = 'r', octave = ''] = match ?? [];
    if (name === 'r') return word;
    const note = `${sure(readNote(asciiAccidentals(name)), 'readNote')}${octave}`;
    return tie + move(note) + word.slice(tie.length + name.length + octave.length);
  });
}
