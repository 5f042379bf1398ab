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
import { proposals } from './proposals';

const CHART = {
  id: 'pump',
  key: 'Eb',
  tempo: 132,
  bars: 12,
  sections: [{ from: 1, to: 12 }],
  beats: 4,
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
    expect(all[5]).toMatchObject({ what: 'band', form: true, area: null, after: [], key: 'Eb' });
    expect(all[6]).toMatchObject({ what: 'line', line: 'l1', name: 'Hand over hand' });
    expect([...new Set(all.slice(7).map(({ area, key }) => `${area} ${key}`))].slice(0, 4)).toEqual([
      '3 Eb',
      '8 Eb',
      '11 Ab',
      '4 Db'
    ]);
  });

  it('take a line phrase by phrase, then each joined with the next, then whole', () => {
    const phrases = [
      { from: 1, to: 2 },
      { from: 3, to: 4 },
      { from: 5, to: 5 }
    ];
    const lines = proposals({ ...CHART, lines: [{ id: 'l1', name: 'Ebb', phrases }] }).filter(
      ({ line }) => line
    );
    expect(lines.map(({ name, bars }) => [name, bars?.from, bars?.to])).toEqual([
      ['Ebb, bars 1 to 2', 1, 2],
      ['Ebb, bars 3 to 4', 3, 4],
      ['Ebb, bar 5', 5, 5],
      ['Ebb, bars 1 to 4', 1, 4],
      ['Ebb, bars 3 to 5', 3, 5],
      ['Ebb', undefined, undefined]
    ]);
    expect(lines[3]!.after).toEqual([lines[0]!.id, lines[1]!.id]);
    expect(lines[5]!.after).toEqual([lines[3]!.id, lines[4]!.id]);
    expect(lines.every(({ what }) => what === 'line')).toBe(true);
  });

  it('go through all twelve keys in fourths, each once the one before goes well', () => {
    const keys = [...new Set(all.map(({ key }) => key))];
    expect(keys).toEqual(['Eb', 'Ab', 'Db', 'Gb', 'B', 'E', 'A', 'D', 'G', 'C', 'F', 'Bb']);
    const inB = all.filter(({ key }) => key === 'B');
    expect(inB.map(({ what }) => what)).toEqual(['targets']);
    expect(inB[0]!.after).toEqual(['pump:Gb:9:targets']);
    const minor = proposals({ ...CHART, key: 'F#m', positions: [9] });
    expect(minor.find(({ key }) => key === 'Bm')).toMatchObject({ area: 2, what: 'up' });
  });

  it('have ids of their own, and stand only on what comes before them', () => {
    const seen = new Set<string>();
    for (const { id, after } of all) {
      expect(seen.has(id)).toBe(false);
      expect(after.every((before) => seen.has(before))).toBe(true);
      seen.add(id);
    }
    expect(all.filter(({ after }) => after.length === 0).map(({ what }) => what)).toEqual([
      'up',
      'down',
      'band'
    ]);
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
