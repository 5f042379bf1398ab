import { describe, expect, it } from 'vitest';
import { readChord } from '../../theory/chord-reader';
import { kindOf, symbolOf, type ExtraDegree } from './kinds';

const add = (value: number, alter = 0): ExtraDegree => ({ value, alter, type: 'add' });
const alter = (value: number, by: number): ExtraDegree => ({ value, alter: by, type: 'alter' });
const subtract = (value: number): ExtraDegree => ({ value, alter: 0, type: 'subtract' });
const read = (
  root: string,
  kind: string,
  degrees: ExtraDegree[] = [],
  more: { text?: string; bass?: string; inversion?: number } = {}
) => symbolOf(root, { kind, text: '', bass: '', degrees, ...more });
const setOf = (symbol: string | null) => {
  const reading = readChord(symbol ?? '');
  return reading.kind === 'chord' ? reading.chord.pitchSet : null;
};

describe('a chord from elsewhere', () => {
  it.each<[string, string, ExtraDegree[], string]>([
    ['C', 'suspended-fourth', [add(7)], 'C7sus4'],
    ['Bb', 'suspended-fourth', [add(7), add(9)], 'Bb9sus4'],
    ['F#', 'suspended-second', [add(7)], 'F#7sus2'],
    ['Eb', 'dominant', [alter(5, -1)], 'Eb7b5'],
    ['G', 'dominant', [alter(5, 1), add(9, -1)], 'G7#5b9'],
    ['A', 'dominant', [add(9, -1), add(13, -1)], 'A7b9b13'],
    ['Db', 'major-seventh', [add(11, 1)], 'Dbmaj7#11'],
    ['C', 'major', [add(9)], 'Cadd9'],
    ['C', 'minor', [add(9)], 'Cmadd9'],
    ['D', 'major-sixth', [add(9)], 'D69'],
    ['E', 'dominant-ninth', [alter(9, 1)], 'E7#9'],
    ['B', 'half-diminished', [add(9)], 'Bm7b5add9'],
    ['Ab', 'major', [subtract(3)], 'Ab5'],
    ['G', 'dominant', [subtract(5)], 'G7no5'],
    ['F', 'minor', [add(7, 1)], 'Fm(maj7)'],
    ['C', 'major-11th', [], 'Cmaj11'],
    ['Ab', 'German', [], 'Ab7'],
    ['Ab', 'French', [], 'Ab7b5']
  ])('%s %s with its degrees', (root, kind, degrees, expected) => {
    const found = read(root, kind, degrees);
    expect(setOf(found), `${found} for ${expected}`).toBe(setOf(expected));
  });

  it('keeps its bass, and the tone that an inversion has there', () => {
    expect(read('C', 'major', [], { inversion: 1 })).toBe('C/E');
    expect(read('Eb', 'minor-seventh', [], { inversion: 3 })).toBe('Ebm7/Db');
    expect(read('Ab', 'minor', [], { inversion: 1 })).toBe('Abm/Cb');
    expect(read('Db', 'Neapolitan')).toBe('Db/F');
    expect(read('F', 'dominant', [], { bass: 'Eb', inversion: 1 })).toBe('F7/Eb');
  });

  it('is written as it stands on the page, unless that would be another chord', () => {
    expect(read('B', 'half-diminished', [], { text: 'ø7' })).toBe('Bø7');
    expect(read('C', 'suspended-fourth', [add(7)], { text: 'sus' })).not.toBe('Csus');
    expect(read('C', 'minor-seventh', [], { text: '7' })).toBe('Cm7');
  });

  it('is none where it cannot be told', () => {
    expect(read('C', 'quartal')).toBeNull();
    expect(read('C', 'major', [add(17)])).toBeNull();
  });

  it('comes back from what is written here, tone for tone', () => {
    for (const symbol of [
      'C7sus4',
      'G9sus4',
      'A13sus4',
      'Bbmaj9',
      'F#m11',
      'D7b9b13',
      'Eb7#5#9',
      'Abmaj7#11',
      'Cadd9',
      'Dm6',
      'E7b5',
      'G69',
      'Bm7b5',
      'F13#11',
      'Am(maj7)',
      'C5',
      'Db6'
    ]) {
      const reading = readChord(symbol);
      if (reading.kind !== 'chord') throw new Error(symbol);
      const { kind, degrees } = kindOf(reading.chord);
      expect(setOf(symbolOf(reading.chord.root, { kind, text: '', degrees, bass: '' })), symbol).toBe(
        reading.chord.pitchSet
      );
    }
  });
});
