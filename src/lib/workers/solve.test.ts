import { describe, expect, it } from 'vitest';
import { readSheet } from '../core/harmony/sheet';
import { STANDARD } from '../core/neck/tuning';
import { FREE_PATH, type TargetOptions } from '../core/targets/options';
import { solve, type Solved, type SolverJob } from './solve';

const { analysis } = readSheet('{key: Ab}\n| Bbm7 | Eb7b9 | Abmaj7 | Fm6 |');
const rules = (own: Partial<TargetOptions> = {}): TargetOptions => ({
  ...FREE_PATH,
  neck: STANDARD,
  position: [4, 4, 5, 5],
  strings: [2, 3, 4, 5],
  ...own
});
const done = (job: SolverJob): Solved => ({ job, result: solve(job) });
const FIRST = done({
  analysis,
  options: rules(),
  others: [rules({ column: '3' }), rules({ column: '7' })]
});

describe('a job of the solver', () => {
  it('takes over the other threads where they are asked for again, in whatever order', () => {
    const pinned = rules({ fixed: [{ change: 1, string: 3, fret: 5 }] });
    const others = [rules({ column: '7', fixed: [] }), rules({ column: '3' })];
    const next = solve({ analysis, options: pinned, others }, undefined, FIRST);
    expect(next.others[0]).toBe(FIRST.result.others[1]);
    expect(next.others[1]).toBe(FIRST.result.others[0]);
    expect(next).toEqual(solve({ analysis, options: pinned, others }));
    expect(next.answer.paths[0]!.targets[1]!.isFixed).toBe(true);
  });

  it('knows them again in a copy, as they come to a worker', () => {
    const others = structuredClone([rules({ column: '7' })]);
    const next = solve({ analysis, options: rules(), others }, undefined, FIRST);
    expect(next.others[0]).toBe(FIRST.result.others[1]);
  });

  it.each([
    ['the hand is elsewhere at one change', analysis, { position: [4, 4, 5, 6] }],
    ['steps weigh otherwise', analysis, { weights: { ...rules().weights, hand: 9 } }],
    ['other strings are ruled out', analysis, { strings: [1, 2, 3, 4] }],
    ['no string is ruled out', analysis, { strings: null }],
    ['the chart has another reading', readSheet('| Bbm7 | Eb7b9 | Abmaj7 | Fm6 |').analysis, {}]
  ])('solves them anew where %s', (_, reading, own) => {
    const others = [rules({ column: '3', ...own })];
    const next = solve({ analysis: reading, options: rules(own), others }, undefined, FIRST);
    expect(next.others[0]).not.toBe(FIRST.result.others[0]);
    expect(next).toEqual(solve({ analysis: reading, options: rules(own), others }));
  });
});
