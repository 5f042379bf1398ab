import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { agoText, dayAfter, dayAt, dayOf, daysBetween, isDay, numberOf, weekOf } from './day';

const D3 = '2026-03-03';

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
