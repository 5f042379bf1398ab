/** What the tests of lines share: lines written as text, chords by their symbols. */
import { sure } from '../base/list';
import type { Chord } from '../theory/chord';
import { readChord } from '../theory/chord-reader';
import { midiOf } from '../theory/note';
import { noteOf, ticksOf, type LineNote } from './model';

/** "D4 1, Eb4, (F4 A4) .5, - 2": notes and rests one after another, an eighth unless a length is said; brackets sound together. */
export function lineOf(text: string): LineNote[] {
  let at = 0;
  return text.split(',').flatMap((word): LineNote[] => {
    const [, names, beats] = sure(/^\s*(\([^)]*\)|\S+)\s*(\S+)?\s*$/.exec(word), 'a note of the test');
    const start = at;
    const length = Number(beats ?? 0.5);
    at += length;
    if (names === '-') return [];
    return names!
      .replace(/[()]/g, '')
      .split(/\s+/)
      .map((name) => noteOf(ticksOf(start), ticksOf(length), sure(midiOf(name), 'midiOf')));
  });
}

/** Eighths one after another. */
export function eighths(...midis: readonly number[]): LineNote[] {
  return midis.map((midi, i) => noteOf(ticksOf(i / 2), ticksOf(0.5), midi));
}

export function chordNamed(symbol: string): Chord {
  const reading = readChord(symbol);
  if (reading.kind !== 'chord') throw new Error(`${symbol} is no chord`);
  return reading.chord;
}

export const ROOTS = ['C', 'Db', 'D', 'Eb', 'E', 'F', 'F#', 'G', 'Ab', 'A', 'Bb', 'B'];

/** Chords of some kinds on every root. */
export const chordsOn = (suffixes: readonly string[]) =>
  ROOTS.flatMap((root) => suffixes.map((suffix) => root + suffix));
