import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { nameOfNotes } from './chord-namer';
import { readChord } from './chord-reader';

describe('the name of notes that sound together', () => {
  it.each([
    [[48, 52, 55], 'C'],
    [[50, 53, 57, 60], 'Dm7'],
    [[55, 59, 65], 'G7'],
    [[54, 57, 60, 64], 'F#m7b5'],
    [[52, 55, 60], 'C/E'],
    [[48, 52, 57], 'Am/C'],
    [[53, 57, 62], 'Dm/F'],
    [[49, 53, 60], 'Dbmaj7'],
    [[50, 57, 60, 64], 'Am/D'],
    [[49, 53, 56, 60], 'Dbmaj7'],
    [[58, 61, 64, 67], 'Bbdim7'],
    [[43, 53, 60, 62], 'G7sus4'],
    // A minor seventh over its third is a sixth chord.
    [[53, 57, 60, 62], 'F6']
  ])('%j is %s', (midis, name) => {
    expect(nameOfNotes(midis)).toBe(name);
  });

  it('is none for a cluster, a note, or nothing', () => {
    expect(nameOfNotes([60, 61, 62])).toBeNull();
    expect(nameOfNotes([60])).toBeNull();
    expect(nameOfNotes([])).toBeNull();
  });

  it('reads back as the same notes, over the same bass, in every key', () => {
    const suffixes = [
      '',
      'm',
      '7',
      'maj7',
      'm7',
      'm7b5',
      'dim7',
      '6',
      'm6',
      'sus4',
      '7sus4',
      '9',
      '7b9',
      'aug'
    ];
    fc.assert(
      fc.property(fc.integer({ min: 36, max: 47 }), fc.constantFrom(...suffixes), (root, suffix) => {
        const reading = readChord(`C${suffix}`);
        if (reading.kind !== 'chord') throw new Error(suffix);
        const midis = reading.chord.pitchClasses.map((pc, i) => root + pc + (i > 1 ? 12 : 0));
        const name = nameOfNotes(midis)!;
        const back = readChord(name);
        if (back.kind !== 'chord') throw new Error(name);
        expect([...new Set(back.chord.pitchClasses)].sort()).toEqual(
          [...new Set(midis.map((midi) => midi % 12))].sort()
        );
        expect(back.chord.rootPc).toBe(root % 12);
      }),
      { numRuns: 60 }
    );
  });
});
