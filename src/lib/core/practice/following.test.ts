import { describe, expect, it } from 'vitest';
import { excerptOf } from '../harmony/excerpt';
import { readSheet } from '../harmony/sheet';
import { ARCS, intensityInArc } from './arc';
import { bandEvents } from './band';
import { relaid, switchedAt, type LaidRound } from './clock';
import type { SoundEvent } from './events';
import { feelNamed } from './feel';
import { afterBar, startFollowing, type Following, type HeardBar } from './following';

const BASE = 0.5;
const DENSE: HeardBar = { notes: 8, pulses: 4, peak: 0.6 };
const SPARSE: HeardBar = { notes: 2, pulses: 4, peak: 0.12 };
const SILENT: HeardBar = { notes: 0, pulses: 4, peak: 0 };
const after = (from: Following, ...bars: readonly HeardBar[]) =>
  bars.reduce((following, bar) => afterBar(following, bar, BASE), from);

describe('a band that follows', () => {
  it('gives nearly all within two bars of a dense and loud player, little within two of a sparse and soft one, and comes back', () => {
    const dense = after(startFollowing(BASE), DENSE, DENSE);
    expect(dense.intensity).toBeGreaterThan(0.9);
    const sparse = after(dense, SPARSE, SPARSE);
    expect(sparse.intensity).toBeLessThan(0.32);
    expect(after(sparse, DENSE, DENSE).intensity).toBeGreaterThan(0.9);
    expect(after(sparse, SILENT, SILENT).intensity).toBeCloseTo(BASE, 9);
  });

  it('moves half of the way after one bar', () => {
    const dense = after(startFollowing(BASE), DENSE, DENSE);
    const { intensity } = after(dense, SPARSE);
    expect(intensity).toBeGreaterThan(0.5);
    expect(intensity).toBeLessThan(dense.intensity);
  });

  it('goes by how loud this player is, not by how far the input is turned up', () => {
    const quieter = (bar: HeardBar) => ({ ...bar, peak: bar.peak / 4 });
    const loud = after(startFollowing(BASE), DENSE, DENSE, SPARSE, SPARSE);
    const soft = after(startFollowing(BASE), ...[DENSE, DENSE, SPARSE, SPARSE].map(quieter));
    expect(soft.intensity).toBeCloseTo(loud.intensity, 1);
  });

  it('answers a silent bar and leaves a busy one room', () => {
    expect(after(startFollowing(BASE), SILENT).room).toBe(-1);
    expect(after(startFollowing(BASE), DENSE).room).toBe(1);
    const { form, analysis } = readSheet('{key: F}\n| F7 | % | Bb7 | % | F7 | % | C7 | % |');
    const excerpt = excerptOf(form, analysis, { kind: 'form' })!;
    const strokes = (room: number) =>
      [...Array(12).keys()].reduce((sum, round) => {
        const events = bandEvents({
          excerpt,
          feel: feelNamed('swing')!,
          ratio: 2 / 3,
          seed: 3,
          round,
          isLast: false,
          room
        });
        return sum + new Set(events.filter(({ part }) => part === 'chords').map(({ start }) => start)).size;
      }, 0);
    expect(strokes(1)).toBeLessThan(0.93 * strokes(0));
    expect(strokes(-1)).toBeGreaterThan(strokes(0));
  });
});

describe('arcs', () => {
  it('stay within what a band can give, and steady is what was asked for', () => {
    for (const { id } of ARCS)
      for (const base of [0, 0.5, 1])
        for (let round = 0; round < 20; round++) {
          const intensity = intensityInArc(id, base, round);
          expect(intensity >= 0 && intensity <= 1).toBe(true);
          if (id === 'steady') expect(intensity).toBe(base);
        }
    expect(intensityInArc('of old', 0.4, 3)).toBe(0.4);
  });

  it('build without a step back, and stay at the top', () => {
    const rounds = [0, 1, 2, 3, 4, 5, 6, 9].map((round) => intensityInArc('build', 0.5, round));
    expect(rounds).toEqual([...rounds].sort((a, b) => a - b));
    expect(rounds[0]).toBeCloseTo(0.2, 9);
    expect(rounds.at(-1)).toBeCloseTo(0.9, 9);
  });
});

describe('what is made anew while it plays', () => {
  const event = (start: number, beats: number, velocity: number): SoundEvent => ({
    part: 'bass',
    start,
    beats,
    midi: 40,
    velocity
  });

  it('goes over at a bar line, and nothing sounds across it', () => {
    const [old, fresh] = [0.3, 0.9].map((velocity) => [0, 1, 2, 3].map((at) => event(at * 2, 3, velocity)));
    const events = switchedAt(old!, fresh!, 4);
    expect(events.map(({ start, velocity }) => [start, velocity])).toEqual([
      [0, 0.3],
      [2, 0.3],
      [4, 0.9],
      [6, 0.9]
    ]);
    expect(events[1]!.beats).toBe(2);
  });

  it('leaves what is over, and keeps each round in its place', () => {
    const laid: LaidRound[] = [0, 1, 2].map((number) => ({
      number,
      start: number * 8,
      round: { events: [], beats: 8, tempo: 120 }
    }));
    const seen: [number, number][] = [];
    const next = relaid(laid, 11, (one, from) => {
      seen.push([one.number, from]);
      return { ...one.round, tempo: 99 };
    });
    expect(seen).toEqual([
      [1, 3],
      [2, 0]
    ]);
    expect(next.map(({ start, round }) => [start, round.tempo])).toEqual([
      [0, 120],
      [8, 99],
      [16, 99]
    ]);
  });
});
