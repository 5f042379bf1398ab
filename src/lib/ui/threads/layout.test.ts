import { describe, expect, it } from 'vitest';
import {
  HEAD,
  layOutPitch,
  layOutTones,
  layOutTime,
  pitchEnds,
  placesOf,
  standAside,
  stepWords,
  threadLine
} from './layout';

const changes = [
  { start: 0, beats: 4 },
  { start: 4, beats: 2 },
  { start: 6, beats: 2 },
  { start: 8, beats: 8 }
];

describe('threads', () => {
  it('give every change its true share of time', () => {
    const { columns, width } = layOutTime(changes, 16, 900);
    expect(width).toBe(900);
    expect(columns.map((c) => c.width / columns[1]!.width)).toEqual([2, 1, 1, 4]);
    expect(columns.map((c) => c.x)).toEqual([0, 225, 337.5, 450]);
  });

  it('grow wider than the window rather than squeeze a short change', () => {
    const { columns, width } = layOutTime(changes, 16, 200);
    expect(width).toBeGreaterThan(200);
    expect(Math.min(...columns.map((c) => c.width))).toBeGreaterThanOrEqual(60);
  });

  it('show the whole form in one row where it fits a little closer', () => {
    // Sixteen bars, one of them in halves, in a window of 1920 with the panel beside it.
    const bars = Array.from({ length: 17 }, (_, i) =>
      i < 15 ? { start: 4 * i, beats: 4 } : { start: 60 + 2 * (i - 15), beats: 2 }
    );
    expect(layOutTime(bars, 64, 1560).width).toBe(1560);
    expect(layOutTime(bars, 64, 900).width).toBeGreaterThan(900);
    // On a phone the steps between two tones would lie over them.
    expect(layOutTime(bars.slice(0, 4), 16, 360).width).toBe(360);
    expect(layOutTime(changes, 16, 360).width).toBeGreaterThan(360);
  });

  it('put higher notes higher, below the chord symbols', () => {
    const pitch = layOutPitch(pitchEnds([50, 60, 70]), 240);
    expect(pitch(70)).toBeLessThan(pitch(60));
    expect(pitch(60)).toBeLessThan(pitch(50));
    expect(pitch(70)).toBeGreaterThan(HEAD);
    expect(pitch(50)).toBeLessThan(240);
  });

  it('keep their height while the hand goes from fret to fret, with room for every pitch', () => {
    const ends = [40, 41, 42, 43, 44, 45].map((low) => pitchEnds([low, low + 24]));
    expect(new Set(ends.map(String)).size).toBe(2);
    ends.forEach(([low, high], i) => {
      expect(low).toBeLessThan(40 + i);
      expect(high).toBeGreaterThan(64 + i);
    });
    expect(pitchEnds([])).toEqual([0, 1]);
  });

  it('know a tone again by its string and its place on it', () => {
    const on = (...strings: number[]) => placesOf(strings.map((string) => ({ string })));
    expect(on(6, 5, 5, 4)).toEqual(['6.0', '5.0', '5.1', '4.0']);
    expect(new Set(on(1, 1, 1, 2, 2)).size).toBe(5);
  });

  it('lay out the tones of a column together: each on its string and at its height, clear of the target', () => {
    const tones = [
      { midi: 50, string: 5 },
      { midi: 51, string: 5 },
      { midi: 58, string: 3 }
    ];
    const laid = layOutTones(tones, 58, (midi) => 300 - 4 * midi);
    expect(laid.map(({ place, y }) => [place, y])).toEqual([
      ['5.0', 100],
      ['5.1', 96],
      ['3.0', 68]
    ]);
    // A semitone apart they would cover one another; the target never moves.
    expect(laid[1]!.aside).toBeGreaterThan(laid[0]!.aside);
    expect(laid[2]!.aside).toBe(0);
    expect(laid.map(({ tone }) => tone)).toEqual(tones);
  });

  it('survive a chart without notes', () => {
    const { columns } = layOutTime([{ start: 0, beats: 4 }], 4, 300);
    expect(columns).toEqual([{ index: 0, x: 0, width: 300 }]);
  });

  it('say their steps as players do', () => {
    expect([0, 1, -2, 12].map(stepWords)).toEqual(['stays', '+1', '−2', '+12']);
  });

  it('keep tones off each other and off the target', () => {
    const y = (midi: number) => 400 - 6 * midi;
    // A rootless thirteenth under the hand: neighbours a semitone and a tone apart.
    const midis = [50, 52, 53, 57, 58, 60, 62, 64, 65];
    const aside = standAside(midis, 58, y);
    expect(aside[midis.indexOf(58)]).toBe(0);
    midis.forEach((midi, i) =>
      midis.slice(i + 1).forEach((other, n) => {
        const apart = Math.hypot(aside[i]! - aside[i + 1 + n]!, y(midi) - y(other));
        expect(apart, `${midi} and ${other}`).toBeGreaterThanOrEqual([midi, other].includes(58) ? 18 : 15.5);
      })
    );
    expect(standAside([50, 62], 50, y)).toEqual([0, 0]);
  });

  it('hold a pitch through its change and bend to the next just before it comes', () => {
    const line = threadLine([
      { x: 20, end: 100, y: 50 },
      { x: 120, end: 200, y: 40 }
    ]);
    expect(line).toBe('M20 50L66 50C93 50 93 40 120 40L200 40');
    expect(threadLine([])).toBe('');
  });
});
