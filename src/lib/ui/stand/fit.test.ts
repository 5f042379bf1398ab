import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { cropOf, firstString, gapIn, leastNeck, rowFor, shownIn, sizesFor } from './fit';

const strings = fc.integer({ min: 4, max: 8 });
const windows = fc.constantFrom(
  ...([
    [1280, 800],
    [1024, 768],
    [820, 1180],
    [1180, 820],
    [390, 844],
    [844, 390],
    [1920, 1080]
  ] as const)
);

describe('the sizes of the stand', () => {
  it('are those that are read from 1.5 m where the shorter side is 700 pixels, else those of a phone in the hand', () => {
    expect(sizesFor(820, 1180)).toMatchObject({ chord: 90, next: 53, degree: 23, fret: 16 });
    expect(sizesFor(1024, 768)).toEqual({ chord: 88, next: 52, degree: 22, fret: 16 });
    expect(sizesFor(1024, 768, 'larger')).toEqual({ chord: 114, next: 68, degree: 29, fret: 21 });
    expect(sizesFor(700, 1000)).toEqual({ chord: 88, next: 52, degree: 22, fret: 16 });
    expect(sizesFor(699, 1000)).toEqual({ chord: 48, next: 32, degree: 15, fret: 12 });
    expect(sizesFor(4000, 3000).chord).toBe(123);
  });

  it('leave room for every string: numbers above, the name of the hand below', () => {
    fc.assert(
      fc.property(windows, strings, fc.integer({ min: 0, max: 900 }), ([w, h], count, more) => {
        const sizes = sizesFor(w, h);
        const height = leastNeck(count, sizes) + more;
        const gap = gapIn(height, count, sizes);
        expect(gap).toBeGreaterThanOrEqual(sizes.degree * 1.36 - 1e-9);
        const first = firstString(height, count, gap, sizes);
        expect(first - gap / 2).toBeGreaterThanOrEqual(sizes.fret * 1.5);
        expect(first + gap * (count - 0.5) + sizes.fret * 1.8).toBeLessThanOrEqual(height + 1e-9);
      })
    );
  });
});

describe('the frets that are shown', () => {
  const room = { width: 1250, gap: 60, degree: 22, last: 22 };
  it('are those of all hands where they fit, so that the picture stands still', () => {
    const all = [
      { from: 4, to: 9 },
      { from: 7, to: 12 }
    ];
    const at = (now: number) => cropOf({ all, now: all[now]!, coming: all[1 - now]! }, room);
    expect(at(0)).toEqual(at(1));
    expect(at(0).from).toBeLessThanOrEqual(4);
    expect(at(0).to).toBeGreaterThanOrEqual(12);
  });

  it('are this hand and the coming one where all do not fit, and this hand always', () => {
    const narrow = { ...room, width: 380 };
    const all = [
      { from: 0, to: 5 },
      { from: 2, to: 7 },
      { from: 12, to: 17 }
    ];
    expect(cropOf({ all, now: all[0]!, coming: all[1]! }, narrow)).toEqual({ from: 0, to: 7 });
    expect(cropOf({ all, now: all[0]!, coming: all[2]! }, narrow)).toEqual({ from: 0, to: 5 });
  });

  it('always hold this hand, never leave the neck, and never show many empty frets', () => {
    const frets = fc
      .tuple(fc.integer({ min: 0, max: 18 }), fc.integer({ min: 3, max: 6 }))
      .map(([from, span]) => ({ from, to: Math.min(22, from + span) }));
    fc.assert(
      fc.property(fc.array(frets, { minLength: 1, maxLength: 6 }), windows, (all, [width]) => {
        const now = all[0]!;
        const shown = cropOf({ all, now, coming: all[1] ?? null }, { ...room, width });
        expect(shown.from).toBeLessThanOrEqual(now.from);
        expect(shown.to).toBeGreaterThanOrEqual(now.to);
        expect(shown.from).toBeGreaterThanOrEqual(0);
        expect(shown.to).toBeLessThanOrEqual(22);
        const joined = {
          from: Math.min(...all.map(({ from }) => from)),
          to: Math.max(...all.map(({ to }) => to))
        };
        expect(shown.to - shown.from).toBeLessThanOrEqual(joined.to - joined.from + 3);
      })
    );
  });
});

describe('what gives way', () => {
  const sizes = sizesFor(1280, 800);
  const neck = leastNeck(6, sizes);
  it('is the staff first, then the target line; the tab stays', () => {
    const run = { run: true, staff: 260, tab: 140 };
    expect(shownIn({ width: 1260, height: neck + 260 }, neck, run, sizes)).toMatchObject({
      staff: true,
      tab: false
    });
    expect(shownIn({ width: 1260, height: neck + 259 }, neck, run, sizes)).toMatchObject({
      staff: false,
      tab: true,
      isBeside: false
    });
    // A low, wide window has it beside the neck.
    expect(shownIn({ width: 828, height: 228 }, 200, run, sizesFor(844, 390))).toMatchObject({
      tab: true,
      isBeside: true
    });
    expect(shownIn({ width: 374, height: 228 }, 200, run, sizesFor(390, 844))).toMatchObject({
      tab: true,
      isBeside: false
    });
    const line = { run: false, staff: 0, tab: 140 };
    expect(shownIn({ width: 374, height: neck + 20 }, neck, line, sizes).line).toBe(false);
    expect(shownIn({ width: 374, height: neck + 120 }, neck, line, sizes)).toMatchObject({
      line: true,
      isBeside: false
    });
    expect(shownIn({ width: 828, height: 228 }, 200, line, sizesFor(844, 390))).toMatchObject({
      line: true,
      isBeside: true,
      lineHeight: 228
    });
  });

  it('is the place of the target, then its note, then the next chord goes below; letters shrink only for a symbol wider than the page', () => {
    const wants = { chord: 300, next: 250, beats: 80, target: [40, 90, 150] as const };
    const at = (width: number) => rowFor({ ...wants, width });
    expect(at(780)).toEqual({ isStacked: false, withPlace: true, withNote: true, shrunk: 1 });
    expect(at(720)).toEqual({ isStacked: false, withPlace: false, withNote: true, shrunk: 1 });
    expect(at(670)).toEqual({ isStacked: false, withPlace: false, withNote: false, shrunk: 1 });
    expect(at(669)).toEqual({ isStacked: true, withPlace: true, withNote: true, shrunk: 1 });
    expect(at(420)).toEqual({ isStacked: true, withPlace: false, withNote: false, shrunk: 1 });
    expect(at(360).shrunk).toBeCloseTo(0.8);
  });
});
