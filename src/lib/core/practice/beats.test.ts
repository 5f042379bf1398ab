import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { draggedBeats, findBeats, secondOfBeat, secondOfRound, tappedBeats } from './beats';

const RATE = 8000;
/** A drummer: strokes on beats and softer ones between, decaying noise, from some second on. */
function drummer(tempo: number, first: number, seconds: number): Float32Array {
  const samples = new Float32Array(seconds * RATE);
  const strike = (second: number, loud: number) => {
    const at = Math.round(second * RATE);
    for (let i = 0; i < 800 && at + i < samples.length; i++) {
      samples[at + i]! += loud * Math.exp(-i / 160) * Math.sin(i * (loud > 0.5 ? 0.4 : 1.7));
    }
  };
  for (let beat = 0; first + (beat * 60) / tempo < seconds; beat++) {
    strike(secondOfBeat({ first, tempo }, beat), beat % 2 ? 0.9 : 0.8);
    strike(secondOfBeat({ first, tempo }, beat + 0.5), 0.25);
  }
  return samples;
}

describe('the beat of a recording', () => {
  it('is found to a small part of a beat a minute and some hundredths of a second', () => {
    for (const [tempo, first] of [
      [92, 0.4],
      [120, 1.25],
      [137.5, 0.08],
      [76.3, 2.1]
    ] as const) {
      const found = findBeats(drummer(tempo, first, 40), RATE)!;
      expect(Math.abs(found.tempo - tempo), `${tempo}: ${found.tempo}`).toBeLessThan(0.15);
      expect(Math.abs(found.first - first), `${first}: ${found.first}`).toBeLessThan(0.03);
    }
  });

  it('is none in silence and in what is too short', () => {
    expect(findBeats(new Float32Array(10 * RATE), RATE)).toBeNull();
    expect(findBeats(drummer(120, 0, 1), RATE)).toBeNull();
  });

  it('is that of taps, however uneven, the first of them on the first beat', () => {
    const taps = [2.02, 2.49, 3.01, 3.5, 3.98, 4.51];
    const grid = tappedBeats(taps)!;
    expect(grid.tempo).toBeCloseTo(120, -1);
    expect(grid.first).toBeCloseTo(2, 1);
    expect(tappedBeats([1, 2, 3])).toBeNull();
    expect(tappedBeats([1, 1, 1, 1])).toBeNull();
  });

  it('follows a dragged beat: the first moves all, a later one the tempo', () => {
    const grid = { first: 1, tempo: 120 };
    expect(draggedBeats(grid, 0, 1.4)).toEqual({ first: 1.4, tempo: 120 });
    expect(draggedBeats(grid, 0, -3)!.first).toBe(0);
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 64 }),
        fc.double({ min: -0.2, max: 0.2, noNaN: true }),
        (beat, by) => {
          const second = secondOfBeat(grid, beat) + by;
          const dragged = draggedBeats(grid, beat, second);
          if (dragged) expect(secondOfBeat(dragged, beat)).toBeCloseTo(second, 9);
        }
      )
    );
    expect(draggedBeats(grid, 4, 0.5)).toBeNull();
  });

  it('goes on chorus by chorus as far as it reaches, and loops inside the first', () => {
    const grid = { first: 2, tempo: 60 };
    const whole = { from: 0, beats: 16, form: 16 };
    // Two choruses and a little.
    const starts = [0, 1, 2, 3].map((round) => secondOfRound(grid, whole, round, 36));
    expect(starts).toEqual([2, 18, 2, 18]);
    const part = { from: 8, beats: 4, form: 16 };
    expect([0, 1].map((round) => secondOfRound(grid, part, round, 36))).toEqual([10, 10]);
    expect(secondOfRound(grid, whole, 3, 10)).toBe(2);
  });
});
