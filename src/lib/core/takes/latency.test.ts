import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { latencyFrom } from './latency';

const CLICKS = Array.from({ length: 8 }, (_, i) => 1 + i * 0.6);

describe('the latency of an input', () => {
  it('is the middle of what was played with the clicks, whatever one of them was', () => {
    fc.assert(
      fc.property(
        fc.double({ min: -0.1, max: 0.25, noNaN: true }),
        fc.array(fc.double({ min: -0.015, max: 0.015, noNaN: true }), { minLength: 8, maxLength: 8 }),
        (latency, uneven) => {
          const onsets = CLICKS.map((click, i) => click + latency + uneven[i]!);
          const measured = latencyFrom(CLICKS, [...onsets, 0.1, 30])!;
          expect(Math.abs(measured.seconds - latency)).toBeLessThanOrEqual(0.0151);
          expect(measured.spread).toBeLessThanOrEqual(0.03);
          expect(measured.answered).toBe(6);
        }
      ),
      { numRuns: 100 }
    );
  });

  it('is not told where too few clicks were answered, or in no time at all', () => {
    expect(latencyFrom(CLICKS, CLICKS.slice(0, 4))).toBeNull();
    expect(
      latencyFrom(
        CLICKS,
        CLICKS.map((click, i) => click + (i % 2 ? 0.2 : -0.2))
      )
    ).toBeNull();
    expect(latencyFrom(CLICKS, [])).toBeNull();
  });
});
