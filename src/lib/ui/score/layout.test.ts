import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { noteOf, TICKS } from '$lib/core/line/model';
import { writtenBars } from '$lib/core/line/notation';
import { systemsOf, TAB_GAP } from './layout';
import { timeAt, xAt } from './times';

const meter = { beats: 4, unit: 4 };
const form = (bars: number) =>
  Array.from({ length: bars }, (_, i) => ({ number: i + 1, section: '', start: 4 * i, beats: 4, meter }));
const eighthsOver = (bars: number, midi = 60) =>
  Array.from({ length: bars * 8 }, (_, i) => noteOf((i * TICKS) / 2, TICKS / 2, midi));
const broken = (bars: number, width: number, midi = 60, strings = 6) => {
  const notes = eighthsOver(bars, midi);
  const measures = { width, fifths: -3, strings, hasDegrees: true, chordsIn: () => ['Ebmaj7'] };
  return systemsOf(writtenBars(notes, form(bars), meter), notes, measures);
};

describe('a score broken into systems', () => {
  it('keeps every bar once, in order, and no system is wider than the page', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 40 }), fc.integer({ min: 360, max: 1600 }), (bars, width) => {
        const systems = broken(bars, width);
        expect(systems.flatMap((one) => one.bars.map(({ number }) => number))).toEqual(
          form(bars).map(({ number }) => number)
        );
        for (const { widths } of systems) {
          if (widths.length > 1) expect(widths.reduce((a, b) => a + b, 0)).toBeLessThanOrEqual(width + 1e-6);
        }
      }),
      { numRuns: 40 }
    );
  });

  it('has four bars of eighths beside each other on a desk, one on a phone, and fills its lines', () => {
    const desk = broken(16, 1238);
    expect(desk.map(({ bars }) => bars.length)).toEqual([4, 4, 4, 4]);
    expect(desk[1]!.widths.reduce((a, b) => a + b, 0)).toBeCloseTo(1238);
    expect(broken(3, 348).map(({ bars }) => bars.length)).toEqual([1, 1, 1]);
    // A last bar alone is not drawn out over the page.
    expect(broken(5, 1238).at(-1)!.widths[0]).toBeLessThan(500);
  });

  it('makes room for ledger lines above and below, and for every string', () => {
    const [plain] = broken(1, 800, 64);
    const [high] = broken(1, 800, 88);
    const [low] = broken(1, 800, 40);
    expect(high!.staffAt).toBeGreaterThan(plain!.staffAt + 20);
    expect(low!.tabAt - low!.staffAt).toBeGreaterThan(plain!.tabAt - plain!.staffAt + 5);
    expect(broken(1, 800, 64, 7)[0]!.height - plain!.height).toBe(TAB_GAP);
  });
});

describe('time and place on a system', () => {
  const anchors = [0, 480, 960, 1920].map((start, i) => ({
    start,
    x: 100 + 40 * i,
    isFirst: true,
    notes: [noteOf(start, 480, 60)],
    indexes: [i]
  }));
  const bars = [
    { start: 0, end: 3840, from: 90, to: 300 },
    { start: 3840, end: 7680, from: 320, to: 500 }
  ];
  it('is on the notes, and in proportion between them', () => {
    expect(xAt({ anchors, bars }, 480)).toBe(140);
    expect(xAt({ anchors, bars }, 1440)).toBe(200);
    // A silent bar begins where it begins, wherever its rest stands.
    expect(xAt({ anchors, bars }, 3840)).toBe(326);
  });

  it('goes back the same way', () => {
    for (const time of [0, 200, 480, 1000, 3000, 5000, 7680]) {
      expect(timeAt({ anchors, bars }, xAt({ anchors, bars }, time))).toBeCloseTo(time);
    }
  });
});
