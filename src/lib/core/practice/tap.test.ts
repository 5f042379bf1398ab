import { describe, expect, it } from 'vitest';
import { tappedTempo, withTap } from './tap';

const tapped = (...gaps: number[]) => {
  let at = 1000;
  return gaps.reduce((taps, gap) => withTap(taps, (at += gap)), withTap([], at));
};

describe('a tapped tempo', () => {
  it.each([
    [[], null],
    [[500], 120],
    [[500, 510, 490], 120],
    [[600, 600, 900, 600], 100],
    [[500, 500, 4000], null],
    [[900, 300, 300, 300, 300, 300, 300, 300, 300], 200]
  ])('with gaps of %j ms is %s', (gaps, tempo) => {
    expect(tappedTempo(tapped(...gaps))).toBe(tempo);
  });
});
