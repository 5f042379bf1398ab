import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { agoText, dayAfter, dayAt, dayOf, daysBetween, isDay, numberOf, weekOf } from './day';
import type { LogRow, PracticeItem } from './model';
import { progressOf } from './progress';
import { heldTempo, nextTempo, stepped, stepsUp } from './tempo';

const row = (day: string, tempo: number, clean: boolean | null, rounds = 1): LogRow => ({
  item: 'a',
  day,
  tempo,
  clean,
  rounds,
  seconds: 30
});
const TEMPO = { start: 80, goal: 120 };
const [D1, D2, D3] = ['2026-03-01', '2026-03-02', '2026-03-03'] as const;

describe('days', () => {
  it('turn at midnight where the player is, not in Greenwich', () => {
    const late = Date.parse('2026-03-05T23:30:00Z');
    expect(dayOf(late, 0)).toBe('2026-03-05');
    expect(dayOf(late, -60)).toBe('2026-03-06');
    expect(dayOf(late, 480)).toBe('2026-03-05');
    expect(dayOf(Date.parse('2026-03-05T03:00:00Z'), 480)).toBe('2026-03-04');
  });

  it('are reckoned over months, leap years and changes of the clock', () => {
    expect(dayAfter('2028-02-28', 1)).toBe('2028-02-29');
    expect(dayAfter('2026-12-31', 1)).toBe('2027-01-01');
    expect(daysBetween('2026-03-28', '2026-03-30')).toBe(2);
    fc.assert(fc.property(fc.integer({ min: 0, max: 40_000 }), (n) => numberOf(dayAt(n)) === n));
  });

  it('belong to weeks that begin on Monday', () => {
    expect(weekOf('2026-03-05')).toBe('2026-03-02');
    expect(weekOf('2026-03-02')).toBe('2026-03-02');
    expect(weekOf('2026-03-01')).toBe('2026-02-23');
  });

  it('are only those that there are', () => {
    expect(['2026-02-30', '2026-13-01', 'yesterday', '2026-3-1', ''].filter(isDay)).toEqual([]);
    expect(isDay('2028-02-29')).toBe(true);
  });

  it('are told from today; one in the future counts as today', () => {
    expect([0, -1, -5, 3].map((days) => agoText(dayAfter(D3, days), D3))).toEqual([
      'today',
      'yesterday',
      '5 days ago',
      'today'
    ]);
  });
});

describe('the ladder of an item', () => {
  const next = (...rows: LogRow[]) => nextTempo(TEMPO, rows, D3);

  it('begins at the start', () => expect(next()).toBe(80));
  it('goes up a step after two clean rounds in a row, whether in one row or in two', () => {
    expect(next(row(D3, 100, true, 2))).toBe(104);
    expect(next(row(D3, 100, true), row(D3, 100, true))).toBe(104);
  });
  it('stays after one clean round, and where clean and unclean take turns', () => {
    expect(next(row(D3, 100, true))).toBe(100);
    expect(next(row(D3, 100, true), row(D3, 100, false))).toBe(100);
    expect(next(row(D3, 96, true), row(D3, 100, true))).toBe(100);
  });
  it('goes down two steps after two unclean rounds', () => expect(next(row(D3, 100, false, 2))).toBe(92));
  it('takes a step of two beats at least, and of the item’s own size', () => {
    expect(stepped(40, 1)).toBe(42);
    expect(stepped(100, 1, 10)).toBe(110);
    expect(stepped(100, -2)).toBe(92);
    expect(stepsUp(80, 83)).toBe(1);
    expect(stepsUp(120, 80)).toBe(0);
  });
  it('goes no further than the goal', () => {
    expect(next(row(D3, 118, true, 4))).toBe(120);
    expect(next(row(D3, 120, true, 4))).toBe(120);
  });
  it('begins a day two steps under the best held, else under the best clean twice, else under the slowest', () => {
    expect(next(row(D1, 100, true), row(D2, 104, true))).toBe(92);
    expect(next(row(D2, 104, true, 3))).toBe(96);
    expect(next(row(D2, 100, false), row(D2, 92, false))).toBe(84);
  });
  it('counts what a clock set back has left in the future as today’s', () =>
    expect(next(row('2026-03-09', 100, true, 2))).toBe(104));
  it('leaves rounds alone of which nothing was said', () => {
    expect(next(row(D3, 100, true, 2), row(D3, 110, null, 5))).toBe(104);
  });

  it('never falls for a round that was clean instead of unclean', () =>
    fc.assert(
      fc.property(
        fc.array(fc.tuple(fc.constantFrom(D1, D2, D3), fc.constantFrom(80, 90, 100), fc.boolean()), {
          minLength: 1,
          maxLength: 8
        }),
        fc.nat(),
        (rounds, at) => {
          const rows = [...rounds]
            .sort((a, b) => (a[0] < b[0] ? -1 : a[0] > b[0] ? 1 : 0))
            .map((round) => row(...round));
          const index = at % rows.length;
          const better = rows.map((one, i) => (i === index ? { ...one, clean: true } : one));
          const worse = rows.map((one, i) => (i === index ? { ...one, clean: false } : one));
          expect(nextTempo(TEMPO, better, D3)).toBeGreaterThanOrEqual(nextTempo(TEMPO, worse, D3));
        }
      ),
      { numRuns: 400 }
    ));
});

describe('progress', () => {
  const item = (id: string, after: string[] = []): PracticeItem => ({ id, what: 'up', after, tempo: TEMPO });
  const clean = (day: string, tempo: number) => row(day, tempo, true);

  it('holds a tempo that was clean on two days, the lower of the two best', () => {
    expect(heldTempo([clean(D1, 100), clean(D1, 120)])).toBe(null);
    expect(heldTempo([clean(D1, 100), clean(D2, 120), row(D3, 130, false)])).toBe(100);
  });

  it('holds what the second best day allows, in whatever order the rows stand', () =>
    fc.assert(
      fc.property(
        fc.array(fc.tuple(fc.constantFrom(D1, D2, D3), fc.integer({ min: 60, max: 70 }), fc.boolean()), {
          maxLength: 12
        }),
        (rounds) => {
          const best = [D1, D2, D3].map((day) =>
            Math.max(
              0,
              ...rounds.filter(([own, , isClean]) => own === day && isClean).map(([, tempo]) => tempo)
            )
          );
          const [, second] = best.sort((a, b) => b - a);
          expect(heldTempo(rounds.map((round) => row(...round)))).toBe(second || null);
        }
      ),
      { numRuns: 200 }
    ));

  it('opens what stands on an item once that is held at its goal on two days', () => {
    const items = [item('a'), item('b', ['a']), item('c', ['gone'])];
    const state = (...rows: LogRow[]) => [...progressOf(items, rows, D3).values()].map((one) => one.state);
    expect(state()).toEqual(['open', 'shut', 'open']);
    expect(state(clean(D1, 120), clean(D1, 120))).toEqual(['in progress', 'shut', 'open']);
    expect(state(clean(D1, 120), clean(D2, 120))).toEqual(['held', 'open', 'open']);
  });

  it('reads a seam from the latest rounds that were marked', () => {
    const of = (...rows: LogRow[]) => progressOf([item('a')], rows, D3).get('a')!;
    expect(of(row(D2, 100, false)).isSeam).toBe(false);
    expect(of(row(D2, 100, false, 2))).toMatchObject({ isSeam: true, unclean: 1 });
    expect(of(row(D2, 100, false, 3), row(D2, 100, true, 6))).toMatchObject({ isSeam: false, unclean: 0 });
  });
});
