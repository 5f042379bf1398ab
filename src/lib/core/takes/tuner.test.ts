import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { readInstrument, TUNINGS } from '../neck/tuning';
import { midiOf } from '../theory/note';
import { middleOf, openPitches, steadied, stringOf } from './tuner';

const guitar = (parts: Parameters<typeof readInstrument>[0]) => readInstrument(parts)!;

describe('the tuner', () => {
  it('finds every string of every tuning, however it is off by less than half the way to the next', () => {
    fc.assert(
      fc.property(
        fc.constantFrom(...Object.keys(TUNINGS)),
        fc.integer({ min: -80, max: 80 }),
        (tuning, cents) => {
          const neck = guitar({ tuning });
          openPitches(neck).forEach((midi, i) => {
            const reading = stringOf(midi + cents / 100, neck)!;
            expect(reading.string).toBe(i + 1);
            expect(reading.cents).toBeCloseTo(cents, 5);
          });
        }
      ),
      { numRuns: 30 }
    );
  });

  it('tunes to what sounds at the capo, however the chords are written', () => {
    for (const capoChords of ['sounding', 'fingered'] as const) {
      const neck = guitar({ capo: 3, capoChords });
      // The low E with a capo at the third fret sounds G.
      expect(openPitches(neck)[5]).toBe(midiOf('G2'));
      expect(stringOf(midiOf('G2')! - 0.1, neck)).toEqual({ string: 6, cents: -10 });
    }
  });

  it('says of a pitch far from every string that it is none', () => {
    expect(stringOf(80, guitar({}))).toBeNull();
    expect(stringOf(30, guitar({}))).toBeNull();
  });

  it('keeps still among readings of one string, and lets go at the next', () => {
    const readings = [40.1, 40.12, 40.4, 40.11, null, 40.1].reduce(steadied, [] as readonly number[]);
    expect(middleOf(readings)).toBe(40.11);
    expect(steadied(readings, 45)).toEqual([45]);
    expect(middleOf([])).toBeNull();
  });
});
