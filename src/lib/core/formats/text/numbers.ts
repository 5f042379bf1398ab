/**
 * Chords as numbers of a key: "1 4 5 6m". A plain number is a major triad on that degree of the key's own scale; what follows it is
 * the chord's suffix, "-" being minor.
 */
import { nth, sure } from '../../base/list';
import { isMinorKey, type Key } from '../../harmony/key';
import { isChord } from '../../theory/chord-reader';
import { noteAbove } from '../../theory/note';
import { looksLike } from './tokens';

const MAJOR = ['1P', '2M', '3M', '4P', '5P', '6M', '7M'] as const;
const MINOR = ['1P', '2M', '3m', '4P', '5P', '6m', '7m'] as const;
const NUMBER = /^([b#♭♯]?)([1-7])([^/]*)(?:\/([b#♭♯]?)([1-7]))?$/;
const SUFFIXES: Readonly<Record<string, string>> = { '-': 'm', '-7': 'm7', '°': 'dim', o: 'dim' };

const suffixOf = (typed: string) => SUFFIXES[typed] ?? typed;

/** Whether a word is a number of a chord: "6m7", "57" (a seventh on the fifth), "b7", "1/3". */
export function isNumber(word: string): boolean {
  const match = NUMBER.exec(word);
  return match !== null && isChord(`C${suffixOf(nth(match, 3))}`);
}

/** A line of numbers and signs, at least two of them, is chords where a key is known. */
export function isNumberLine(line: string): boolean {
  return looksLike(line, isNumber) && (line.match(/[1-7]/g)?.length ?? 0) > 1;
}

function noteOf(sign: string, degree: string, key: Key): string {
  // With a sign before it a number counts from the major scale, in minor too: b6 of G minor is E flat.
  const steps = isMinorKey(key) && sign === '' ? MINOR : MAJOR;
  const note = noteAbove(key.tonic, nth(steps, Number(degree) - 1));
  if (sign === '') return note;
  const up = sign === '#' || sign === '♯';
  const against = up ? 'b' : '#';
  return note.endsWith(against) ? note.slice(0, -1) : note + (up ? '#' : 'b');
}

/** The chord of a number in a key. */
function chordOfNumber(word: string, key: Key): string {
  const [, sign = '', degree = '', suffix = '', bassSign = '', bass] = sure(NUMBER.exec(word), 'NUMBER');
  const chord = noteOf(sign, degree, key) + suffixOf(suffix);
  return bass === undefined ? chord : `${chord}/${noteOf(bassSign, bass, key)}`;
}

/** A line of numbers as chords. */
export const fromNumbers = (line: string, key: Key): string =>
  line.replaceAll(/[^\s|[\](){},;:]+/g, (word) => (isNumber(word) ? chordOfNumber(word, key) : word));
