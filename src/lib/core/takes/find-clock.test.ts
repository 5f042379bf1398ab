import { describe, expect, it } from 'vitest';
import { DEMO_CHARTS } from '../../scenario/charts';
import { findClock } from './find-clock';
import { played, START, TEMPO, tuneOf } from './testing';

describe('the clock of notes that were played without one', () => {
  it.each(DEMO_CHARTS.slice(0, 6).map(({ text }, i) => [i, text] as const))(
    'is found in tune %i, near the tempo of its chart',
    (_, text) => {
      for (const skill of [1, 0.7]) {
        const { tempo, start } = findClock(played(tuneOf(text), skill, 5), TEMPO * 1.08);
        expect(Math.abs(tempo - TEMPO)).toBeLessThan(1);
        // A worse player may leave out the very note that the form begins with.
        if (skill === 1) expect(Math.abs(start - START)).toBeLessThan(0.06);
      }
    }
  );

  it('is the likely one where nothing was played', () => {
    expect(findClock([], 90)).toEqual({ tempo: 90, start: 0 });
  });
});
