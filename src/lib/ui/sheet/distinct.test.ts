import { expect, it } from 'vitest';
import { barsText } from './distinct';

it.each([
  [[3], 'bar 3'],
  [[3, 4], 'bars 3, 4'],
  [[1, 2, 3, 4, 9], 'bars 1–4, 9'],
  [[1, 3, 5, 7, 9, 11, 13], 'bars 1, 3, 5, 7, 9, 11 …']
])('bars %j are told as %s', (bars, wanted) => {
  expect(barsText(bars)).toBe(wanted);
});
