import { describe, expect, it } from 'vitest';
import { noteOf, ticksOf } from '$lib/core/line/model';
import { stripOf } from './strip';

const OVER = [
  { symbol: 'Dm7', beats: 4 },
  { symbol: 'G7', beats: 4 }
];

describe('the strip of a lick', () => {
  const notes = [-0.5, 0, 0.5, 0.75, 2, 4, 4.25, 6].map((at) => noteOf(ticksOf(at), 240, 60));

  it('keeps time in order, inside its width, pickups before the first chord', () => {
    const { xs, chords, bars } = stripOf(notes, OVER, 4, 380);
    expect([...xs].sort((a, b) => a - b)).toEqual(xs);
    expect(xs[0]).toBeLessThan(chords[0]!.x);
    expect(chords.map(({ x }) => x)).toEqual([xs[1], xs[5]]);
    expect(bars).toHaveLength(3);
    for (const x of [...xs, ...bars.map((bar) => bar.x)]) {
      expect(x).toBeGreaterThanOrEqual(0);
      expect(x).toBeLessThanOrEqual(380);
    }
    expect(bars[1]!.x).toBeLessThan(xs[5]!);
  });

  it('gives quick notes room, and one place to two at once', () => {
    const quick = Array.from({ length: 24 }, (_, i) => noteOf(ticksOf(i / 4), 240, 60));
    const { xs } = stripOf(quick, OVER, 4, 380);
    for (let i = 1; i < xs.length; i++) expect(xs[i]! - xs[i - 1]!).toBeGreaterThan(10);
    // Over three bars time alone would give them seven pixels.
    const flurry = stripOf(quick.slice(0, 4), [...OVER, { symbol: 'Cmaj7', beats: 4 }], 4, 380).xs;
    expect(flurry[1]! - flurry[0]!).toBeGreaterThan(10);
    const both = stripOf([noteOf(0, 480, 60), noteOf(0, 480, 64)], OVER, 4, 380).xs;
    expect(both[0]).toBe(both[1]);
  });
});
