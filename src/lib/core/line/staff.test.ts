import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { noteAbove } from '../theory/note';
import { noteOf, TICKS, type LineNote } from './model';
import { writtenBars } from './notation';
import { accidentalsOf, signature, staffPitch, stepOf } from './staff';

const bar = { number: 1, section: '', start: 0, beats: 4, meter: { beats: 4, unit: 4 } };
const spelled = (...names: readonly (readonly [string, number])[]): LineNote[] =>
  names.map(([note, midi], i) => ({ ...noteOf((i * TICKS) / 2, TICKS / 2, midi), note }));
const shown = (notes: readonly LineNote[], fifths: number) => {
  const [first] = writtenBars(notes, [bar], bar.meter);
  return accidentalsOf(first!, notes, fifths).flat();
};

describe('notes on a staff', () => {
  it.each([
    ['C', 60, 'C4'],
    ['Cb', 59, 'Cb4'],
    ['B#', 60, 'B#3'],
    ['E', 40, 'E2'],
    ['Gb', 66, 'Gb4'],
    ['F##', 67, 'F##4'],
    ['Bbb', 69, 'Bbb4']
  ])('%s at %i stands as %s', (note, midi, expected) => {
    const { letter, octave } = staffPitch({ note, midi });
    expect(`${letter}${note.slice(1)}${octave}`).toBe(expected);
  });

  it('gives the pitch back from letter, accidental and octave', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 36, max: 96 }),
        fc.constantFrom('3m', '3M', '7d', '4A', '2m'),
        (midi, interval) => {
          const root = noteOf(0, 1, midi).note;
          const note = noteAbove(root, interval);
          const semitones = { '3m': 3, '3M': 4, '7d': 9, '4A': 6, '2m': 1 }[interval]!;
          const { letter, alter, octave } = staffPitch({ note, midi: midi + semitones });
          const natural = { C: 0, D: 2, E: 4, F: 5, G: 7, A: 9, B: 11 }[letter];
          expect((octave + 1) * 12 + natural + alter).toBe(midi + semitones);
        }
      ),
      { numRuns: 60 }
    );
  });

  it('counts steps of the staff, not semitones', () => {
    expect(stepOf(staffPitch({ note: 'E', midi: 64 }))).toBe(2);
    expect(stepOf(staffPitch({ note: 'Fb', midi: 64 }))).toBe(3);
    expect(stepOf(staffPitch({ note: 'C', midi: 48 }))).toBe(-7);
  });

  it('knows the signatures', () => {
    expect(signature(2)).toMatchObject({ F: 1, C: 1, G: 0, B: 0 });
    expect(signature(-3)).toMatchObject({ B: -1, E: -1, A: -1, D: 0 });
    expect(signature(0)).toMatchObject({ B: 0, F: 0 });
  });

  it('writes an accidental once in a bar, and takes it back with a natural', () => {
    expect(shown(spelled(['Bb', 70], ['Bb', 70], ['B', 71], ['Bb', 70]), 0)).toEqual([-1, null, 0, -1]);
    // Another octave has its own.
    expect(shown(spelled(['F#', 66], ['F#', 78]), 0)).toEqual([1, 1]);
    expect(shown(spelled(['Bb', 70], ['E', 64], ['Eb', 63]), -2)).toEqual([null, 0, -1]);
  });

  it('writes none where a note is tied over', () => {
    const note = { ...noteOf(1.5 * TICKS, 2 * TICKS, 66), note: 'F#' };
    const [first] = writtenBars([note], [bar], bar.meter);
    // A quarter's silence, an eighth's, the push, and what it is held for.
    expect(accidentalsOf(first!, [note], 0)).toEqual([[], [], [1], [null], []]);
    // Over the bar line the sign would count anew; what is only held on needs none, what is struck again does.
    const over = [
      { ...noteOf(3.5 * TICKS, TICKS, 66), note: 'F#' },
      { ...noteOf(4.5 * TICKS, TICKS, 66), note: 'F#' }
    ];
    const [, second] = writtenBars(over, [bar, { ...bar, number: 2, start: 4 }], bar.meter);
    expect(accidentalsOf(second!, over, 0).flat()).toEqual([null, 1]);
  });
});
