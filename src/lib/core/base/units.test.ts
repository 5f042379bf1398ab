import { describe, expect, it } from 'vitest';
import { beatsOf, ticksOf } from '../line/model';
import type { Fret, StringNumber } from './units';

describe('a unit', () => {
  it('is never taken for another: the check of types refuses it', () => {
    const fret: Fret = 3;
    // @ts-expect-error a fret is no string
    const string: StringNumber = fret;
    // @ts-expect-error ticks are no beats
    const ticks = ticksOf(ticksOf(1));
    expect([string, ticks, beatsOf(ticksOf(1.5))]).toEqual([3, 960 * 960, 1.5]);
  });
});
