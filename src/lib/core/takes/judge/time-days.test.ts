import { expect, it } from 'vitest';
import { timeByDay } from './time-days';

it('tells how a player lay in time by day, the takes of one day together', () => {
  const take = (day: string, mean: number, spread: number) => ({ day, mean, spread });
  expect(
    timeByDay([
      take('2026-03-02', 0.04, 0.02),
      take('2026-03-01', -0.01, 0.03),
      take('2026-03-02', 0.02, 0.04)
    ])
  ).toEqual([
    { day: '2026-03-01', mean: -0.01, spread: 0.03, takes: 1 },
    { day: '2026-03-02', mean: 0.03, spread: 0.03, takes: 2 }
  ]);
});
