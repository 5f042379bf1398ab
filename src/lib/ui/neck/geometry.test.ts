import { describe, expect, it } from 'vitest';
import { dotsPath, neckGeometry, net } from './geometry';

const measures = {
  width: 900,
  strings: 6,
  from: 0,
  to: 22,
  stringGap: 30,
  top: 20,
  bottom: 40,
  open: 34,
  leftHanded: false
};

describe('neck geometry', () => {
  const neck = neckGeometry(measures);
  const frets = Array.from({ length: 22 }, (_, i) => i + 1);

  it('puts every finger between the wires of its fret, and open strings before the nut', () => {
    for (const fret of frets) {
      expect(neck.finger(fret)).toBeGreaterThan(neck.wire(fret - 1));
      expect(neck.finger(fret)).toBeLessThan(neck.wire(fret));
    }
    expect(neck.finger(0)).toBeLessThan(neck.wire(0));
  });

  it('makes frets narrower up the neck, wide enough for a note all the same', () => {
    const widths = frets.map((fret) => neck.wire(fret) - neck.wire(fret - 1));
    for (let i = 1; i < widths.length; i++) expect(widths[i]).toBeLessThan(widths[i - 1]!);
    expect(widths.at(-1)).toBeGreaterThan(26);
    expect(neck.wire(22)).toBeLessThanOrEqual(900);
  });

  it('finds the fret under a pointer again, left-handed too', () => {
    for (const leftHanded of [false, true]) {
      const either = neckGeometry({ ...measures, leftHanded });
      for (const fret of frets) expect(either.fretAt(either.finger(fret))).toBe(fret);
    }
  });

  it('mirrors for the left hand', () => {
    const left = neckGeometry({ ...measures, leftHanded: true });
    for (const fret of frets) expect(left.finger(fret)).toBeCloseTo(900 - neck.finger(fret));
    expect(left.string(1)).toBe(neck.string(1));
  });

  it('starts a small neck at its first fret', () => {
    const small = neckGeometry({ ...measures, width: 116, from: 5, to: 10, open: 3 });
    expect(small.wire(4)).toBeCloseTo(3);
    expect(small.finger(5)).toBeGreaterThan(small.wire(4));
    expect(small.wire(10)).toBeLessThanOrEqual(116);
  });

  it('draws the wires and strings of a small board as one path', () => {
    const path = net(neck, 6, 5, 8);
    const wires = [...path.matchAll(/M([\d.]+) [\d.]+V/g)].map(([, x]) => Number(x));
    expect(wires).toHaveLength(5);
    [4, 5, 6, 7, 8].forEach((fret, i) => expect(wires[i]!).toBeCloseTo(neck.wire(fret), 0));
    const strings = [...path.matchAll(/M[\d.]+ ([\d.]+)H/g)].map(([, y]) => Number(y));
    expect(strings).toEqual([1, 2, 3, 4, 5, 6].map(neck.string));
  });

  it('draws discs over their places as one path', () => {
    const path = dotsPath(
      neck,
      [
        { string: 2, fret: 3 },
        { string: 1, fret: 5 }
      ],
      ({ string }) => 4 * string
    );
    const starts = [...path.matchAll(/M([\d.]+) ([\d.]+)a([\d.]+)/g)].map(([, ...numbers]) =>
      numbers.map(Number)
    );
    expect(starts).toHaveLength(2);
    expect(starts[0]![0]! + 8).toBeCloseTo(neck.finger(3), 0);
    expect(starts[0]!.slice(1)).toEqual([neck.string(2), 8]);
    expect(starts[1]!.slice(1)).toEqual([neck.string(1), 4]);
  });
});
