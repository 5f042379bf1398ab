/**
 * How note names are written: B and B♭; H and B, as in German and the north; or do re mi. Inside, and in everything that is
 * stored, sent or typed into a chart, a note has its international letter; only what a player reads is written otherwise. A
 * page or a thread that writes for a player says once how, as it would its language.
 */

import { nth, sure } from '../base/list';

export const LETTERS = ['b', 'h', 'solfege'] as const;
export type Letters = (typeof LETTERS)[number];

/** Syllables in the order of the letters. */
const SYLLABLES: Readonly<Record<string, string>> = {
  C: 'Do',
  D: 'Re',
  E: 'Mi',
  F: 'Fa',
  G: 'Sol',
  A: 'La',
  B: 'Si'
};

let writing: Letters = 'b';

/** From now on names are written so. */
export function writeLetters(letters: Letters): void {
  writing = letters;
}

/** The letters that notes are written in now. */
export const lettersWritten = (): Letters => writing;

/** A letter and its ASCII accidentals as they are written: "Bb" is "B" with H, "Si" and "b" with syllables. */
export function written(letter: string, accidentals: string): string {
  if (writing === 'solfege') return (SYLLABLES[letter] ?? letter) + accidentals;
  if (writing === 'h' && letter === 'B')
    return accidentals.startsWith('b') ? `B${accidentals.slice(1)}` : `H${accidentals}`;
  return letter + accidentals;
}

const BY_SYLLABLE = Object.fromEntries(
  Object.entries(SYLLABLES).map(([letter, syllable]) => [syllable.toLowerCase(), letter])
);

/** A name as a player types it, in international letters: "h" is "B", "b" is "Bb", "sol" is "G" where names are written so. */
export function readWritten(typed: string): string {
  if (writing === 'solfege') {
    const found = /^(do|re|ré|mi|fa|sol|la|si)(.*)$/i.exec(typed);
    return found
      ? sure(BY_SYLLABLE[nth(found, 1).toLowerCase().replace('é', 'e')], 'BY_SYLLABLE') + nth(found, 2)
      : typed;
  }
  if (writing === 'h') {
    if (/^h/i.test(typed)) return `B${typed.slice(1)}`;
    // B is B flat; who writes the flat too means the same.
    if (/^b(?![b♭])/i.test(typed)) return `Bb${typed.slice(1)}`;
  }
  return typed;
}
