import { readChord } from '../theory/chord-reader';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { pitchClass } from '../theory/note';
import { readScale } from '../theory/scale';
import { positionFill, stretchCaution } from './position';
import { shapeOf, sayCell } from './shape';
import { readInstrument, readTuning, soundAt, spots, STANDARD, TUNINGS } from './tuning';

const chordOf = (symbol: string) => {
  const reading = readChord(symbol);
  return reading.kind === 'chord' ? reading.chord : null;
};
const places = (cells: readonly { string: number; fret: number }[]) =>
  cells.map((c) => `${c.string}:${c.fret}`);

describe('tunings', () => {
  it('reads names and own strings, lowest first', () => {
    expect(readTuning('Standard')).toEqual([64, 59, 55, 50, 45, 40]);
    expect(readTuning('D2 A2 D3 G3 B3 E4')).toEqual(readTuning('drop d'));
    expect(readTuning('E2 A2 X3')).toBeNull();
    expect(readTuning('E2 A2')).toBeNull();
    expect(readTuning('E9 A9 D9 G9 B9 E9')).toBeNull();
    expect(readInstrument({ frets: 40 })).toBeNull();
    expect(readInstrument({ tuning: 'bass', frets: 24 })!.strings).toHaveLength(4);
  });

  it('lays chords written as they are fingered in their open shapes behind the capo', () => {
    const neck = readInstrument({ capo: 2, capoChords: 'fingered' })!;
    const open = shapeOf(neck, chordOf('E'), null, 2).cells.filter(({ fret }) => fret <= 4);
    const plain = shapeOf(STANDARD, chordOf('E'), null, 0).cells.filter(({ fret }) => fret <= 2);
    const named = (cells: typeof open, by: number) =>
      cells.map(({ string, fret, note }) => `${string}:${fret - by} ${note}`).sort();
    expect(named(open, 2)).toEqual(named(plain, 0));
    expect(neck.raised).toBe(2);
    expect(readInstrument({ capo: 2 })!.raised).toBe(0);
  });

  it('starts at the capo', () => {
    const neck = readInstrument({ capo: 3 })!;
    expect(Math.min(...spots(neck, 0, 22).map((s) => s.fret))).toBe(3);
  });
});

describe('position fill', () => {
  it('lays F Dorian out in position 8 by hand', () => {
    const { cells } = shapeOf(STANDARD, chordOf('Fm7'), readScale('F dorian'), 8);
    expect(places(cells.filter((c) => c.string === 6))).toEqual(['6:8', '6:10', '6:11']);
    expect(places(cells.filter((c) => c.string === 3))).toEqual(['3:8', '3:10', '3:7']);
    expect(cells.find((c) => c.string === 3 && c.fret === 7)).toMatchObject({
      note: 'D',
      degree: '13',
      finger: 1,
      stretch: true
    });
    expect(cells.find((c) => c.string === 6 && c.fret === 11)).toMatchObject({
      note: 'Eb',
      degree: 'b7',
      finger: 4
    });
  });

  it('takes the first finger back where a pitch can be stretched to both ways', () => {
    // Bb4: string 1 fret 6 and string 2 fret 11, seen from position 7.
    const cells = positionFill(STANDARD, [pitchClass('Bb')], 7);
    expect(places(cells.filter((c) => c.midi === 70))).toEqual(['1:6']);
  });

  it('has open strings in the lowest positions only, without a finger', () => {
    const open = (position: number) =>
      positionFill(STANDARD, [4, 9, 2, 7, 11], position).filter((c) => c.fret === 0);
    expect(open(0)).toHaveLength(6);
    expect(open(1).every((c) => c.finger === 0 && !c.stretch)).toBe(true);
    expect(open(2)).toHaveLength(0);
  });

  it('is sound in every tuning, position and collection', () => {
    const tuning = fc.constantFrom(...Object.keys(TUNINGS));
    const collection = fc.uniqueArray(fc.integer({ min: 0, max: 11 }), { minLength: 1, maxLength: 8 });
    fc.assert(
      fc.property(tuning, collection, fc.integer({ min: 0, max: 20 }), (name, pcs, position) => {
        const neck = readInstrument({ tuning: name })!;
        const cells = positionFill(neck, pcs, position);
        const pitches = cells.map((c) => c.midi);
        expect(new Set(pitches).size).toBe(pitches.length);
        for (const cell of cells) {
          expect(cell.midi).toBe(soundAt(neck, cell.string, cell.fret));
          expect(pcs).toContain(cell.midi % 12);
          expect(cell.fret).toBeGreaterThanOrEqual(Math.max(0, position - 1));
          expect(cell.fret).toBeLessThanOrEqual(position + 4);
        }
        // Nothing that the window holds is left out.
        for (const spot of spots(neck, position, position + 3)) {
          if (pcs.includes(spot.midi % 12)) expect(pitches).toContain(spot.midi);
        }
      })
    );
  });

  it('moves with the music: a fret up is a semitone up', () => {
    const chord = chordOf('Abmaj7')!;
    const up = chordOf('Amaj7')!;
    expect(places(shapeOf(STANDARD, up, null, 6).cells)).toEqual(
      places(shapeOf(STANDARD, chord, null, 5).cells).map((p) =>
        p.replace(/\d+$/, (fret) => String(+fret + 1))
      )
    );
  });
});

describe('shapes', () => {
  it('names the G minor triad in position 7', () => {
    const shape = shapeOf(STANDARD, chordOf('Gm'), null, 7);
    expect(shape.name).toBe('G minor triad');
    expect(shape.cells[0]).toMatchObject({
      string: 6,
      fret: 10,
      note: 'D',
      degree: '5',
      finger: 4,
      midi: 50
    });
    expect(shape.lacksInReach).toEqual([]);
    expect(places(shape.stretches)).toEqual(['6:6', '1:6']);
  });

  it('tells what the hand cannot reach', () => {
    const neck = readInstrument({ tuning: 'E4 E4 E4' })!;
    // Frets 6 to 11 of an E string sound Bb to Eb: only the 1 and b7 of C7.
    expect(shapeOf(neck, chordOf('C7'), null, 7).lacksInReach).toEqual(['3', '5']);
  });

  it('cautions about wide stretches low on the neck only', () => {
    const wide = shapeOf(STANDARD, null, readScale('F major'), 2).cells;
    expect(stretchCaution(wide)).toMatch(/stretch/);
    expect(
      stretchCaution(shapeOf(STANDARD, null, readScale('D minor pentatonic'), 10).cells)
    ).toBeUndefined();
  });

  it('reads a cell aloud', () => {
    expect(sayCell({ string: 3, fret: 1, note: 'Ab', degree: 'b3' })).toBe('string 3, fret 1, A♭, ♭3');
  });
});
