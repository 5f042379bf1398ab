import { describe, expect, it } from 'vitest';
import { STANDARD } from '../../neck/tuning';
import { noteOf, TICKS } from '../../line/model';
import type { KeptLick } from '../../line/lick-facts';
import type { LogRow } from '../log/model';
import { progressOf } from '../progress/progress';
import { LICK_KEYS, lickItemId, lickItems, lickPlaceOf, LICK_TEMPO, nextPlace } from './lick-items';

/** Over a ii and V of E flat: A flat, C, E flat, D, and home. */
const DATA = {
  meter: { beats: 4, unit: 4 },
  key: 'Eb',
  by: 'chord',
  over: [
    { symbol: 'Fm7', beats: 4 },
    { symbol: 'Bb7', beats: 4 }
  ],
  notes: [
    [0, 68, 3, 13],
    [1, 72, 3, 17],
    [2, 75, 2, 16],
    [4, 74, 2, 15]
  ].map(([at, midi, string, fret]) => ({
    ...noteOf(at! * TICKS, TICKS, midi!),
    note: ['Ab', 'C', 'Eb', 'D'][[68, 72, 75, 74].indexOf(midi!)]!,
    place: { string: string!, fret: fret!, finger: 1 }
  }))
} as unknown as KeptLick;
const LICK = { id: 'one', name: 'Gangway', data: DATA };
const items = lickItems(LICK, STANDARD);
const row = (item: string, day: string, tempo = 120): LogRow => ({
  item,
  day,
  tempo,
  clean: true,
  rounds: 1,
  seconds: 60
});
const after = (rows: readonly LogRow[]) => {
  const planned = items.map(({ id, after: before }) => ({
    id,
    what: 'lick',
    after: before,
    tempo: LICK_TEMPO
  }));
  return nextPlace(items, progressOf(planned, rows, '2026-03-09'));
};

describe('a lick as something to be practised everywhere', () => {
  it('has a place for every key and area that it lies in, as it was kept first', () => {
    expect(items[0]).toMatchObject({ shift: 0, area: null, name: 'Gangway', key: 'Eb', after: [] });
    expect(new Set(items.map(({ shift }) => shift)).size).toBe(12);
    const home = items.filter(({ shift }) => shift === 0);
    expect(home.length).toBeGreaterThan(3);
    expect(home.slice(1).every(({ areaName }) => / form$/.test(areaName!))).toBe(true);
    expect(new Set(items.map(({ id }) => id)).size).toBe(items.length);
    expect(items.map(({ id }) => lickPlaceOf(id))).toEqual(
      items.map(({ shift, area }) => ({ lick: 'one', shift, area }))
    );
    expect(lickPlaceOf('chart:Eb:5:up')).toBeNull();
  });

  it('goes round in fourths, each place after the one before it and after its own key', () => {
    expect(LICK_KEYS.slice(0, 4)).toEqual([0, 5, 10, 3]);
    const second = items.find(({ shift, area }) => shift === 5 && area === null)!;
    expect(second).toMatchObject({ key: 'Ab', after: [lickItemId('one', { shift: 0, area: null })] });
    // The same form in every key, wherever it lies on the neck.
    const form = items.filter(({ areaName }) => areaName === 'E form');
    expect(form.slice(1).every(({ after: before }, i) => before.includes(form[i]!.id))).toBe(true);
    const there = new Set<string>();
    for (const { id, after: before } of items) {
      expect(before.every((one) => there.has(one))).toBe(true);
      there.add(id);
    }
  });

  it('is taken next where it is not known yet: here, then in another area, then in another key', () => {
    expect(after([])!.id).toBe(items[0]!.id);
    const held = [items[0]!].flatMap(({ id }) => [row(id, '2026-03-01'), row(id, '2026-03-02')]);
    expect(after(held)).toMatchObject({ shift: 0, area: items[1]!.area });
    // Known once at 85 % is enough for the next.
    expect(after([row(items[0]!.id, '2026-03-01', 110)])).toMatchObject({ area: items[1]!.area });
    expect(after([row(items[0]!.id, '2026-03-01', 90)])).toMatchObject({ area: null });
    const home = items
      .filter(({ shift }) => shift === 0)
      .flatMap(({ id }) => [row(id, '2026-03-01'), row(id, '2026-03-02')]);
    expect(after(home)).toMatchObject({ shift: 5, area: null });
  });
});
