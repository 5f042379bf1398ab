import { describe, expect, it } from 'vitest';
import { noteOn } from './edit';
import { linksOf } from './links';
import { STANDARD } from '../neck/tuning';

const on = (string: number, fret: number, start: number, how = {}) => ({
  ...noteOn(STANDARD, string, fret, start, 480),
  ...how
});

describe('what joins the notes of a line', () => {
  it('slides out of the note of a double stop that is on the same string', () => {
    const notes = [on(3, 5, 0), on(2, 6, 0), on(3, 7, 480, { slide: true })];
    expect(linksOf(notes).map(({ from, to }) => [from, to])).toEqual([
      [null, 2],
      [null, null],
      [0, null]
    ]);
    const above = [on(3, 5, 0), on(2, 6, 0), on(2, 8, 480, { slur: true })];
    expect(linksOf(above).map(({ to }) => to)).toEqual([null, 2, null]);
  });

  it('knows what is tied on, and where a note ends', () => {
    const notes = [{ ...on(2, 6, 0), length: 900 }, on(2, 6, 480, { tie: true }), on(1, 5, 960)];
    expect(linksOf(notes).map(({ end, isTiedOn, before }) => [end, isTiedOn, before])).toEqual([
      [480, false, 0],
      [960, false, 1],
      [1440, false, 1]
    ]);
    expect(linksOf([on(2, 6, 0), on(2, 6, 480, { tie: true })])[0]!.isTiedOn).toBe(true);
  });
});
