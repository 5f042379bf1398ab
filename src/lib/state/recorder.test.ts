import { describe, expect, it } from 'vitest';
import type { RecordedRow } from '$lib/api/practice';
import { logRow } from '$lib/api/practice';
import { Recorder, type Playing } from './recorder';

const PLAYING: Playing = { item: 'a', chart: null, what: 'Ascending', key: 'Gm', area: 3, tempo: 80 };

function recorder() {
  const rows = new Map<string, RecordedRow>();
  let id = 0;
  const own = new Recorder(
    (...sent) => {
      for (const row of sent) {
        if ((rows.get(row.id)?.revision ?? 0) < row.revision) rows.set(row.id, row);
      }
    },
    () => Date.parse('2026-03-05T18:00:00Z'),
    () => `00000000-0000-4000-8000-${String(++id).padStart(12, '0')}`
  );
  return {
    own,
    told: () => [...rows.values()].map(({ rounds, clean, seconds }) => [rounds, clean, seconds]),
    rows
  };
}

describe('the recorder', () => {
  it('writes every round as it ends, rounds alike in one row that can be kept', () => {
    const { own, told, rows } = recorder();
    own.add(PLAYING, 30);
    expect(told()).toEqual([[1, null, 30]]);
    own.add(PLAYING, 30);
    own.add({ ...PLAYING, tempo: 84 }, 28);
    expect(told()).toEqual([
      [2, null, 60],
      [1, null, 28]
    ]);
    for (const row of rows.values()) expect(logRow.safeParse(row).success).toBe(true);
  });

  it('marks the last round, and leaves those before it as they were', () => {
    const { own, told } = recorder();
    own.add(PLAYING, 30);
    own.add(PLAYING, 30);
    own.mark(true);
    expect(told()).toEqual([
      [1, null, 30],
      [1, true, 30]
    ]);
    own.mark(false);
    expect(told()).toEqual([
      [1, null, 30],
      [1, false, 30]
    ]);
  });

  it('marks all that were not marked yet, in as few rows as it can', () => {
    const { own, told } = recorder();
    for (let i = 0; i < 3; i++) own.add(PLAYING, 30);
    own.mark(true, true);
    expect(told().reduce((sum, [rounds]) => sum + Number(rounds), 0)).toBe(3);
    expect(told().every(([, clean]) => clean === true)).toBe(true);
    own.add(PLAYING, 30);
    own.mark(false, true);
    expect(told().at(-1)).toEqual([1, false, 30]);
  });

  it('takes a stumble as not clean, with the change it was at', () => {
    const { own, rows } = recorder();
    own.add(PLAYING, 30, [3]);
    expect([...rows.values()][0]).toMatchObject({ clean: false, stumbles: [3] });
    own.mark(true);
    expect([...rows.values()][0]).toMatchObject({ clean: true, stumbles: [] });
  });

  it('tells a round that was broken off by its seconds alone, and nothing of a false start', () => {
    const { own, told } = recorder();
    own.add(PLAYING, 2, [], false);
    expect(told()).toEqual([]);
    own.add(PLAYING, 12, [], false);
    expect(told()).toEqual([[0, null, 12]]);
    expect(own.rounds).toBe(0);
  });

  it('lets no mark reach a playing that is over', () => {
    const { own, told } = recorder();
    own.add(PLAYING, 30);
    own.begin();
    own.mark(true, true);
    expect(told()).toEqual([[1, null, 30]]);
  });
});
