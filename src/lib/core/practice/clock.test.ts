import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { countIn } from './band';
import {
  advance,
  beatAt,
  roundAt,
  retimed,
  secondAt,
  stillPlayable,
  type Progress,
  type Round
} from './clock';
import type { SoundEvent } from './events';

const note = (start: number, midi = 60): SoundEvent => ({ part: 'line', start, beats: 1, midi, velocity: 1 });
const at = (second: number, beat: number, tempo: number) => [{ second, beat, tempo }];
const begin = (beat = 0, tempo = 120): Progress => ({ tempos: at(0, beat, tempo), laid: [], handed: beat });
const seconds = fc.array(fc.double({ min: 0.01, max: 3, noNaN: true }), { minLength: 1, maxLength: 40 });

describe('the clock of the band', () => {
  it('turns seconds into beats and back', () => {
    expect(beatAt(at(10, -4, 120), 12)).toBe(0);
    expect(secondAt(at(10, -4, 120), 8)).toBe(16);
    const twice = retimed(at(0, 0, 60), 4, 120);
    expect([beatAt(twice, 4), beatAt(twice, 5), secondAt(twice, 3), secondAt(twice, 6)]).toEqual([
      4, 6, 3, 5
    ]);
  });

  it('keeps its order and its phase however often the tempo changes', () => {
    const change = fc.record({
      beats: fc.double({ min: 0, max: 9, noNaN: true }),
      tempo: fc.integer({ min: 30, max: 300 })
    });
    fc.assert(
      fc.property(fc.array(change, { maxLength: 8 }), (changes) => {
        let tempos: ReturnType<typeof retimed> = at(0, 0, 100);
        let beat = 0;
        for (const { beats, tempo } of changes) {
          beat += beats;
          const before = secondAt(tempos, beat);
          tempos = retimed(tempos, beat, tempo);
          expect(secondAt(tempos, beat)).toBeCloseTo(before, 9);
        }
        const times = Array.from({ length: 200 }, (_, i) => secondAt(tempos, i / 2));
        expect(times.every((time, i) => i === 0 || time > times[i - 1]!)).toBe(true);
        for (const [i, time] of times.entries()) expect(beatAt(tempos, time)).toBeCloseTo(i / 2, 6);
      })
    );
  });

  it('sounds every event of every round once, however the time is cut', () => {
    fc.assert(
      fc.property(seconds, (steps) => {
        const round: Round = { events: [note(0), note(1.5), note(3.999)], beats: 4, tempo: 120 };
        let progress = begin(-4);
        let now = 0;
        const heard: number[] = [];
        for (const step of steps) {
          now += step;
          const next = advance(
            progress,
            countIn({ beats: 4, meter: { beats: 4, unit: 4 } }),
            () => round,
            now
          );
          progress = next.progress;
          heard.push(...next.due.map((event) => event.at));
        }
        const until = -4 + now * 2;
        const all = [
          -4,
          -3,
          -2,
          -1,
          ...Array.from({ length: 99 }, (_, n) => [0, 1.5, 3.999].map((one) => 4 * n + one)).flat()
        ];
        expect(heard).toEqual(all.filter((one) => one < until));
      })
    );
  });

  it('lets every round have its own notes, length and tempo', () => {
    const rounds: Round[] = [
      { events: [note(0, 60)], beats: 4, tempo: 60 },
      { events: [note(0, 61)], beats: 2, tempo: 120 },
      { events: [note(0, 62), note(2, 63)], beats: 3, tempo: 60 }
    ];
    const { due, progress } = advance(begin(0, 60), [], (n) => rounds[n] ?? null, 60);
    expect(due.map((event) => [event.midi, event.at])).toEqual([
      [60, 0],
      [61, 4],
      [62, 6],
      [63, 8]
    ]);
    expect(due.map((event) => secondAt(progress.tempos, event.at))).toEqual([0, 4, 5, 7]);
    expect([0, 3.9, 4, 5.9, 6, 100].map((beat) => roundAt(progress.laid, beat)!.number)).toEqual([
      0, 0, 1, 1, 2, 2
    ]);
  });

  it('asks for a round as late as can be, so that what was changed meanwhile is in it', () => {
    const asked: number[] = [];
    const roundOf = (n: number): Round => {
      asked.push(n);
      return { events: [], beats: 4, tempo: 60 };
    };
    let { progress } = advance(begin(0, 60), [], roundOf, 3.9);
    expect(asked).toEqual([0]);
    ({ progress } = advance(progress, [], roundOf, 4.1));
    expect(asked).toEqual([0, 1]);
    advance(progress, [], roundOf, 7.9);
    expect(asked).toEqual([0, 1]);
  });

  it('keeps few rounds, however long it goes on', () => {
    let progress = begin(0, 300);
    for (let now = 0; now < 600; now += 0.5) {
      ({ progress } = advance(progress, [], () => ({ events: [], beats: 1, tempo: 300 }), now));
    }
    expect(progress.laid.length).toBeLessThan(8);
    expect(progress.laid.at(-1)!.number).toBeGreaterThan(2000);
  });

  it('piles nothing up after a sleep, and goes on in phase', () => {
    const round: Round = { events: [0, 1, 2, 3].map((start) => note(start)), beats: 4, tempo: 120 };
    const before = advance(begin(0, 120), [], () => round, 1);
    // The page wakes a minute later, at beat 120.3.
    const now = 60.15;
    const { due, progress } = advance(before.progress, [], () => round, now + 0.5);
    expect(due.length).toBeGreaterThan(100);
    const played = stillPlayable(due, progress.tempos, now, 0.05);
    expect(played.map(({ event }) => event.at)).toEqual([121]);
    expect(played[0]!.second).toBeCloseTo(60.5, 9);
    // A little late is played at once.
    const late = stillPlayable([{ ...note(0), at: 120.25, round: 30 }], progress.tempos, now, 0.05);
    expect(late[0]).toMatchObject({ second: now });
  });
});
