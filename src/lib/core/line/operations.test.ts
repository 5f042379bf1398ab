import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { TICKS } from './model';
import { MOTIF_OPERATION_IDS, operated, type MotifShape } from './operations';

/** E F G – C, an eighth each, in a bar of four. */
const MOTIF: MotifShape = {
  notes: [64, 65, 67, 60].map((pitch, i) => ({
    start: [0, 0.5, 1, 2][i]! * TICKS,
    length: TICKS / 2,
    pitch
  })),
  length: 4 * TICKS
};

const told = ({ notes, length }: MotifShape) => ({
  notes: notes.map(({ start, length: own, pitch }) => [start / TICKS, own / TICKS, pitch]),
  length: length / TICKS
});

const anyMotif = fc
  .array(
    fc.record({
      wait: fc.integer({ min: 0, max: 4 }),
      long: fc.integer({ min: 1, max: 4 }),
      pitch: fc.integer({ min: 40, max: 80 })
    }),
    {
      minLength: 1,
      maxLength: 8
    }
  )
  .map((all): MotifShape => {
    let at = 0;
    const notes = all.map(({ wait, long, pitch }) => {
      const start = at + (wait * TICKS) / 4;
      at = start + (long * TICKS) / 4;
      return { start, length: (long * TICKS) / 4, pitch };
    });
    return { notes, length: Math.ceil(at / TICKS) * TICKS };
  });

describe('what is done with a motif', () => {
  it('is exact', () => {
    expect(told(operated(MOTIF, 'repeat'))).toEqual(told(MOTIF));
    expect(told(operated(MOTIF, 'half a beat later')).notes.map(([at]) => at)).toEqual([0.5, 1, 1.5, 2.5]);
    expect(told(operated(MOTIF, 'a beat later')).notes.map(([at]) => at)).toEqual([1, 1.5, 2, 3]);
    const dotted = { whole: 1.5 * TICKS, half: TICKS / 2 };
    expect(told(operated(MOTIF, 'a beat later', dotted)).notes.map(([at]) => at)).toEqual([1.5, 2, 2.5, 3.5]);
    expect(operated(MOTIF, 'invert').notes.map(({ pitch }) => pitch)).toEqual([64, 63, 61, 68]);
    expect(told(operated(MOTIF, 'augment'))).toEqual({
      notes: [
        [0, 1, 64],
        [1, 1, 65],
        [2, 1, 67],
        [4, 1, 60]
      ],
      length: 8
    });
    expect(told(operated(MOTIF, 'diminish'))).toEqual({
      notes: [
        [0, 0.25, 64],
        [0.25, 0.25, 65],
        [0.5, 0.25, 67],
        [1, 0.25, 60]
      ],
      length: 4
    });
    expect(operated(MOTIF, 'fragment').notes.map(({ pitch }) => pitch)).toEqual([64, 65, 67]);
    expect(operated(MOTIF, 'other ending').notes.map(({ isOpen }) => isOpen ?? false)).toEqual([
      false,
      false,
      false,
      true
    ]);
  });

  it('turns back: upside down twice, and slower then faster, is the motif', () => {
    fc.assert(
      fc.property(anyMotif, (motif) => {
        expect(operated(operated(motif, 'invert'), 'invert')).toEqual(motif);
        const back = operated(operated(motif, 'augment'), 'diminish');
        expect(back.notes).toEqual(motif.notes);
      })
    );
  });

  it('keeps its notes in order and within its time, and never has none', () => {
    fc.assert(
      fc.property(anyMotif, fc.constantFrom(...MOTIF_OPERATION_IDS), (motif, id) => {
        const { notes, length } = operated(motif, id);
        notes.forEach(({ start }, i) => {
          expect(start).toBeLessThan(length);
          if (i > 0) expect(start).toBeGreaterThanOrEqual(notes[i - 1]!.start);
        });
        if (!id.endsWith('later')) expect(notes.length).toBeGreaterThan(0);
        if (id !== 'invert') {
          const pitches = motif.notes.map(({ pitch }) => pitch);
          expect(notes.map(({ pitch }) => pitch)).toEqual(pitches.slice(0, notes.length));
        }
      })
    );
  });
});
