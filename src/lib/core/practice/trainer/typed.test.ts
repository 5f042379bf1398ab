import { expect, it } from 'vitest';
import { readChord } from '../../theory/chord-reader';
import { degreeOf } from '../../theory/degree';
import { degreeTyped } from './typed';

/** The twelve degrees of a chord as a card offers them. */
function choicesOf(symbol: string): string[] {
  const reading = readChord(symbol);
  if (reading.kind !== 'chord') throw new Error(symbol);
  return Array.from({ length: 12 }, (_, semitones) => degreeOf(semitones, reading.chord.tones));
}

it('takes a degree as it is typed, by its sound, whatever the chord calls it', () => {
  const over = choicesOf('G7b13');
  expect(degreeTyped('3', 0, over)).toBe('3');
  expect(degreeTyped('3', -1, over)).toBe('#9');
  expect(degreeTyped('9', -1, over)).toBe('b9');
  expect(degreeTyped('2', 0, over)).toBe('9');
  expect(degreeTyped('4', 1, over)).toBe('#11');
  expect(degreeTyped('6', -1, over)).toBe('b13');
  expect(degreeTyped('7', -1, over)).toBe('b7');
  expect(degreeTyped('7', 0, over)).toBe('7');
  expect(degreeTyped('1', -1, over)).toBe('7');
  expect(degreeTyped('8', 0, over)).toBeNull();
  const minor = choicesOf('Cm7b5');
  expect(degreeTyped('3', -1, minor)).toBe('b3');
  expect(degreeTyped('5', -1, minor)).toBe('b5');
  // Where the degree is none of the choices, nothing is meant.
  expect(degreeTyped('3', 0, ['1', 'b3'])).toBeNull();
});
