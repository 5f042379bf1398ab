import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { countIn } from './band';
import { beatAt, dueEvents, retimed, secondAt, stillPlayable } from './clock';
import type { SoundEvent } from './events';

const note = (start: number, midi = 60): SoundEvent => ({ part: 'line', start, beats: 1, midi, velocity: 1 });

describe('the clock of the band', () => {
  it('turns seconds into beats and back', () => {
    const anchor = { second: 10, beat: -4, tempo: 120 };
    expect(beatAt(anchor, 12)).toBe(0);
    expect(secondAt(anchor, 8)).toBe(16);
  });

  it('keeps its phase when the tempo changes', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0, max: 100, noNaN: true }),
        fc.integer({ min: 30, max: 300 }),
        (now, tempo) => {
          const anchor = { second: 0, beat: 0, tempo: 100 };
          const after = retimed(anchor, now, tempo);
          expect(beatAt(after, now)).toBeCloseTo(beatAt(anchor, now), 9);
        }
      )
    );
  });

  it('sounds every event of every round once, however the time is cut', () => {
    const cuts = fc.array(fc.double({ min: 0.01, max: 3, noNaN: true }), { minLength: 1, maxLength: 40 });
    fc.assert(
      fc.property(cuts, (steps) => {
        const round = { events: [note(0), note(1.5), note(3.999)] };
        let from = -4;
        const heard: number[] = [];
        for (const step of steps) {
          heard.push(...dueEvents(() => round, countIn(4), 4, from, from + step).map(({ at }) => at));
          from += step;
        }
        const all = dueEvents(() => round, countIn(4), 4, -4, from).map(({ at }) => at);
        expect(heard.sort((a, b) => a - b)).toEqual(all.sort((a, b) => a - b));
        expect(new Set(heard).size).toBe(heard.length);
      })
    );
  });

  it('lets every round be another one, as when the key goes round', () => {
    const due = dueEvents((round) => ({ events: [note(0, 60 + round)] }), [], 4, 0, 12);
    expect(due.map(({ midi, at }) => [midi, at])).toEqual([
      [60, 0],
      [61, 4],
      [62, 8]
    ]);
  });

  it('piles nothing up after a sleep, and goes on in phase', () => {
    const anchor = { second: 0, beat: 0, tempo: 120 };
    const round = { events: [0, 1, 2, 3].map((start) => note(start)) };
    // Handed over up to beat 2; the page wakes a minute later, at beat 120.3.
    const now = 60.15;
    const due = dueEvents(() => round, [], 4, 2, beatAt(anchor, now + 0.5));
    expect(due.length).toBeGreaterThan(100);
    const played = stillPlayable(due, anchor, now, 0.05);
    expect(played.map(({ event }) => event.at)).toEqual([121]);
    expect(played[0]!.second).toBeCloseTo(60.5, 9);
    // A little late is played at once.
    expect(stillPlayable([{ ...note(0), at: 120.25, round: 30 }], anchor, now, 0.05)[0]!.second).toBe(now);
  });
});
