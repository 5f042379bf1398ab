import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  coverage,
  secondsByDay,
  secondsByWeek,
  stumblesByChange,
  tempoByDay,
  type PlacedRow
} from '../log/sums';
import type { LogRow } from '../log/model';
import { progressOf } from '../log/progress';
import { minutesByNeed, paceTo, readinessOf } from '../session/date';
import { proposals } from './proposals';

const CHART = {
  id: 'pump',
  key: 'Eb',
  tempo: 132,
  positions: [6, 3, 8, 11],
  hasMelody: false,
  lines: [{ id: 'l1', name: 'Hand over hand' }]
};

describe('proposals', () => {
  const all = proposals(CHART);
  it('come in the practitioners’ order: one area, its lines, the next areas, the neighbouring key', () => {
    expect(all.slice(0, 5).map(({ what, area, key }) => `${what} ${area} ${key}`)).toEqual([
      'up 6 Eb',
      'down 6 Eb',
      'alternate 6 Eb',
      'targets 6 Eb',
      'approach 6 Eb'
    ]);
    expect(all[5]).toMatchObject({ what: 'line', line: 'l1', name: 'Hand over hand' });
    expect([...new Set(all.slice(6).map(({ area, key }) => `${area} ${key}`))]).toEqual([
      '3 Eb',
      '8 Eb',
      '11 Ab'
    ]);
    expect(proposals({ ...CHART, key: 'F#m', positions: [9] }).at(-1)).toMatchObject({ key: 'Bm', area: 2 });
  });

  it('have ids of their own, and stand only on what comes before them', () => {
    const seen = new Set<string>();
    for (const { id, after } of all) {
      expect(seen.has(id)).toBe(false);
      expect(after.every((before) => seen.has(before))).toBe(true);
      seen.add(id);
    }
    expect(all.filter(({ after }) => after.length === 0).map(({ what }) => what)).toEqual(['up', 'down']);
  });

  it('begin slowly, and end at the tempo of the chart, shapes at three quarters of it', () => {
    expect(all[0]!.tempo).toEqual({ start: 69, goal: 99 });
    expect(all[3]!.tempo.goal).toBe(132);
  });
});

describe('sums', () => {
  const row = (day: string, part: Partial<PlacedRow> = {}): PlacedRow => ({
    item: 'a',
    chart: 'pump',
    day,
    tempo: 100,
    clean: true,
    rounds: 1,
    seconds: 60,
    key: 'Eb',
    area: 6,
    ...part
  });

  it('are of all rows between the days, whatever they are', () =>
    fc.assert(
      fc.property(
        fc.array(fc.tuple(fc.integer({ min: 1, max: 28 }), fc.integer({ min: 0, max: 900 })), {
          maxLength: 30
        }),
        (days) => {
          const rows = days.map(([day, seconds]) =>
            row(`2026-02-${String(day).padStart(2, '0')}`, { seconds })
          );
          const whole = rows.reduce((sum, { seconds }) => sum + seconds, 0);
          const total = (sums: readonly { seconds: number }[]) =>
            sums.reduce((sum, { seconds }) => sum + seconds, 0);
          expect(total(secondsByDay(rows, '2026-02-01', '2026-02-28'))).toBe(whole);
          expect(total(secondsByWeek(rows, '2026-02-01', '2026-02-28'))).toBe(whole);
          expect(total(coverage(rows))).toBe(whole);
        }
      ),
      { numRuns: 60 }
    ));

  it('tell days without playing too, and weeks from Monday on', () => {
    const rows = [row('2026-03-01'), row('2026-03-03')];
    expect(secondsByDay(rows, '2026-03-01', '2026-03-03').map(({ seconds }) => seconds)).toEqual([60, 0, 60]);
    expect(secondsByWeek(rows, '2026-03-01', '2026-03-03')).toEqual([
      { day: '2026-02-23', seconds: 60 },
      { day: '2026-03-02', seconds: 60 }
    ]);
  });

  it('cover areas by keys, with what is held there in one thing', () => {
    const rows = [
      row('2026-03-01', { tempo: 90 }),
      row('2026-03-02', { tempo: 96, item: 'b' }),
      row('2026-03-03', { tempo: 90 }),
      row('2026-03-03', { area: null })
    ];
    expect(coverage(rows)).toEqual([
      { area: 6, key: 'Eb', seconds: 180, held: 90, clean: 96, lastDay: '2026-03-03' }
    ]);
  });

  it('follow an item’s tempo day by day, and where the player stumbled', () => {
    const rows: LogRow[] = [
      row('2026-03-02', { tempo: 96, clean: false }),
      row('2026-03-02', { tempo: 92 }),
      row('2026-03-01', { tempo: 88 })
    ];
    expect(tempoByDay(rows)).toEqual([
      { day: '2026-03-01', played: 88, clean: 88 },
      { day: '2026-03-02', played: 96, clean: 92 }
    ]);
    expect(stumblesByChange([{ stumbles: [3, 1] }, { stumbles: [3] }])).toEqual([
      { change: 3, times: 2 },
      { change: 1, times: 1 }
    ]);
  });
});

describe('for a date', () => {
  const item = (id: string) => ({ id, what: 'up', chart: 'pump', tempo: { start: 100, goal: 108 } });
  const held = (id: string, tempo: number): LogRow[] =>
    ['2026-03-01', '2026-03-02'].map((day) => ({
      item: id,
      day,
      tempo,
      clean: true,
      rounds: 1,
      seconds: 60
    }));
  const ready = (log: LogRow[], goal: number | null = null) =>
    readinessOf([item('a'), item('b')], progressOf([item('a'), item('b')], log, '2026-03-05'), goal);

  it('reads how ready a tune is from what is held in it', () => {
    expect(ready([])).toEqual({ share: 0, held: 0, items: 2, steps: 2 });
    expect(ready(held('a', 108))).toMatchObject({ share: 0.5, held: 1 });
    expect(ready([...held('a', 104), ...held('b', 108)])).toMatchObject({ share: 0.75, steps: 1 });
    // Played slower on the day than the item aims at, it is ready earlier.
    expect(ready([...held('a', 104), ...held('b', 104)], 104)).toMatchObject({ share: 1, held: 2 });
  });

  it('says which pace is needed, and when that is out of reach', () => {
    expect(paceTo(4, '2026-03-05', '2026-03-13')).toEqual({ days: 8, perDay: 0.5, isInReach: true });
    expect(paceTo(9, '2026-03-05', '2026-03-13').isInReach).toBe(false);
    expect(paceTo(1, '2026-03-05', '2026-03-01')).toMatchObject({ days: 0, isInReach: false });
  });

  it('gives most to what needs most, and something to what is held', () => {
    expect(minutesByNeed([{ share: 0 }, { share: 1 }], 22)).toEqual([20, 2]);
  });

  it('shares the minutes out by need, all of them', () =>
    fc.assert(
      fc.property(
        fc.array(fc.double({ min: 0, max: 1, noNaN: true }), { minLength: 1, maxLength: 8 }),
        fc.integer({ min: 1, max: 240 }),
        (shares, minutes) => {
          const parts = minutesByNeed(
            shares.map((share) => ({ share })),
            minutes
          );
          expect(parts.reduce((sum, part) => sum + part, 0)).toBe(minutes);
          const least = shares.indexOf(Math.min(...shares));
          expect(parts[least]).toBeGreaterThanOrEqual(Math.max(...parts) - 1);
        }
      ),
      { numRuns: 60 }
    ));
});
