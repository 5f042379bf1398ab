/** Days from left to right. */
import { expect, it } from 'vitest';
import { dayAxis } from './day-axis';

it('days lie between the edges by their distance, one by itself in the middle', () => {
  const { x, ticks } = dayAxis(['2026-03-01', '2026-03-03', '2026-03-11'], [100, 600]);
  expect(['2026-03-01', '2026-03-03', '2026-03-11'].map(x)).toEqual([100, 200, 600]);
  expect(ticks[0]!.words).toMatch(/^\d+ Mar$/);
  expect(ticks.every((tick) => tick.x >= 100 && tick.x <= 600)).toBe(true);
  expect(dayAxis(['2026-03-01'], [100, 600]).x('2026-03-01')).toBe(350);
});
