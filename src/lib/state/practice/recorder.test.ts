import { describe, expect, it } from 'vitest';
import type { RecordedRow } from '$lib/api/practice';
import { logRow } from '$lib/api/practice';
import { Recorder, type Playing } from './recorder';

const PLAYING: Playing = {
  item: 'a',
  chart: null,
  what: 'Ascending',
  key: 'Gm',
  area: 3,
  tempo: 80,
  bars: null
};

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
    own.add(PLAYING, 30, [{ change: 3, bar: 2 }]);
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

  it('keeps bars and stumbles of every loop, and another stretch in a row of its own', () => {
    const { own, rows } = recorder();
    const whole = { ...PLAYING, bars: { from: 1, to: 12 } };
    own.add(whole, 30, [
      { change: 9, bar: 7 },
      { change: 10, bar: 7 },
      { change: 3, bar: 2 }
    ]);
    own.add(whole, 30, [{ change: 9, bar: 7 }]);
    own.add({ ...PLAYING, bars: { from: 6, to: 7 } }, 5);
    own.mark(true);
    expect([...rows.values()].map(({ bars, loops, clean }) => [bars, loops, clean])).toEqual([
      [{ from: 1, to: 12 }, [[2, 7], [7]], false],
      [{ from: 6, to: 7 }, [[]], true]
    ]);
    for (const row of rows.values()) expect(logRow.safeParse(row).success).toBe(true);
    expect(own.loops({ from: 1, to: 12 })).toMatchObject([
      { bars: null, length: 12, stumbles: 2, at: [2, 7] },
      { bars: null, stumbles: 1 },
      { bars: { from: 6, to: 7 }, length: 2, stumbles: 0 }
    ]);
  });

  it('tells no loops where a round was marked as not clean without a place, or not at all', () => {
    const { own, rows } = recorder();
    const whole = { ...PLAYING, bars: { from: 1, to: 12 } };
    own.add(whole, 30);
    expect([...rows.values()][0]!.loops).toBeUndefined();
    expect(own.loops(null)).toEqual([]);
    own.mark(false);
    expect([...rows.values()][0]!.loops).toBeUndefined();
    expect(own.loops(null)).toMatchObject([{ stumbles: 2, at: [] }]);
  });

  it('takes what was heard of the last round once the player agrees', () => {
    const { own, rows } = recorder();
    const whole = { ...PLAYING, bars: { from: 1, to: 12 } };
    own.add(whole, 30);
    own.confirm([{ change: 4, bar: 3 }]);
    expect([...rows.values()][0]).toMatchObject({ clean: false, stumbles: [4], loops: [[3]] });
    own.confirm([]);
    expect([...rows.values()][0]).toMatchObject({ clean: true, stumbles: [], loops: [[]] });
  });
});
