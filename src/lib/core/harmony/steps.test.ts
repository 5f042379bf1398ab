/** What is noted of harmonic steps before any key. */
import { describe, expect, it } from 'vitest';
import { readChart } from '../chart/read';
import { unroll } from '../chart/unroll';
import { cutOut, harmonicSteps, surroundingsOf, type Step } from './steps';

const stepsOf = (bars: string) => harmonicSteps(unroll(readChart(bars).chart).changes);
const where = (steps: readonly Step[], is: (step: Step) => boolean) =>
  steps.flatMap((step, i) => (is(step) ? [i] : []));

describe('harmonic steps', () => {
  it('hold what sounds on, and a suspension with what it resolves to', () => {
    const steps = stepsOf('| Dm7 | % | G7sus4 | G7 | C | N.C. | C |');
    expect(steps.map(({ from, to, beats }) => [from, to, beats])).toEqual([
      [0, 1, 8],
      [2, 3, 8],
      [4, 4, 4],
      [6, 6, 4]
    ]);
    expect(steps[1]!.chord.symbol).toBe('G7');
  });

  it('know what they can be and how they move on, round the end of the form', () => {
    const steps = stepsOf('| Gm7 C7 | Fmaj7 | D7 Db7 | Cmaj7 | Am7 Ab7 |');
    expect(steps.map(({ up }) => up)).toEqual([5, 5, 9, 11, 11, 9, 11, null]);
    expect(where(steps, ({ isFive }) => isFive)).toEqual([1, 3, 4, 7]);
    expect(where(steps, ({ resolves }) => resolves)).toEqual([1, 4]);
    expect(where(steps, ({ isSubstitute }) => isSubstitute)).toEqual([4]);
    expect(where(steps, ({ isBeforeSubstitute }) => isBeforeSubstitute)).toEqual([3]);
    // The A♭7 leads round to the Gm7.
    expect(where(steps, ({ isTwoOfNext }) => isTwoOfNext)).toEqual([0, 6]);
  });

  it('lead nowhere at the end of what is cut out', () => {
    const [two, five] = cutOut(stepsOf('| Gm7 | C7 | Fmaj7 |'), 0, 1);
    expect([two!.isTwoOfNext, five!.resolves, five!.up]).toEqual([false, false, null]);
  });

  it('lead on where the sevenths on their own root go', () => {
    const steps = stepsOf('| E | E7 | A | Eb7 D7 |');
    const { previous, next, onward } = surroundingsOf(steps, 0);
    expect([previous, next?.chord.symbol, onward?.chord.symbol]).toEqual([undefined, 'E7', 'A']);
    expect(surroundingsOf(steps, 4).next).toBe(steps[0]);
    expect(surroundingsOf(stepsOf('| E7 Eb7 | D |'), 0).standsFor).toBe(9);
  });
});
