import { describe, expect, it } from 'vitest';
import { lowestFret, STANDARD } from '../neck/tuning';
import { noteOf, TICKS } from './model';
import { beatIn, notesOver } from './over-change';
import { placedAnew } from './placed-anew';

const change = { start: 4, beats: 4 };
const at = (beat: number, beats: number, midi = 60) => noteOf(beat * TICKS, beats * TICKS, midi);

describe('the notes over a change', () => {
  it('are those that begin over it and those that are held into it, with their places in the line', () => {
    const line = [at(0, 1), at(3, 2), at(4, 1), at(7.5, 1), at(8, 1)];
    expect(notesOver(line, change).map(({ index }) => index)).toEqual([1, 2, 3]);
  });

  it('begin on a beat of it, counted from 1; what is held into it on 1', () => {
    expect([at(4, 1), at(6.5, 1), at(3, 2)].map((note) => beatIn(note, change))).toEqual([1, 3.5, 1]);
  });
});

describe('notes without a place', () => {
  it('are placed beside those that have one, which stay', () => {
    const placed = { ...at(0, 1, 64), place: { string: 2, fret: 5 } };
    const [first, second] = placedAnew([placed, at(1, 1, 65)], STANDARD);
    expect(first!.place).toMatchObject({ string: 2, fret: 5 });
    expect(second!.place).toMatchObject({ string: 2, fret: 6 });
  });

  it('have none where no string reaches them, and the others are placed all the same', () => {
    const [low, high] = placedAnew([at(0, 1, 20), at(1, 1, 65)], STANDARD);
    expect(low!.place).toBeUndefined();
    expect(high!.place!.fret).toBeGreaterThanOrEqual(lowestFret(STANDARD));
  });
});
