import { describe, expect, it } from 'vitest';
import { readSheet } from '../core/harmony/sheet';
import { FREE_PATH } from '../core/targets/options';
import { STANDARD } from '../core/neck/tuning';
import { packResult, unpackResult } from './pack';
import { solve } from './solve';

const { analysis } = readSheet('{key: Db}\n| Ebm7 Ab7b9 | Dbmaj7 | Gm7b5 C7 | Fm6 |');
const options = { ...FREE_PATH, neck: STANDARD, position: 4 };

describe('paths on their way between threads', () => {
  it.each([
    ['open, with a pin', { fixed: [{ change: 2, string: 3, fret: 5 }] }],
    ['closed, with others', { loop: true, alternatives: 4 }],
    ['with several targets a change', { every: 1 }],
    [
      'that do not exist',
      { window: { from: 4, to: 4 }, strings: [6], degrees: ['3' as const], standIn: false }
    ]
  ])('come over as they were: %s', (_, own) => {
    const result = solve({ analysis, options: { ...options, ...own }, others: [options] });
    expect(unpackResult(structuredClone(packResult(result)))).toEqual(result);
  });

  it('tell of each place on a chord once, however often it comes', () => {
    const { analysis: vamp } = readSheet('| Gbm9 | Cb13 | Gbm9 | Cb13 | Gbm9 | Cb13 |');
    const { paths } = packResult(solve({ analysis: vamp, options, others: [] })).answer;
    expect(paths[0]!.cells.length).toBeLessThanOrEqual(4);
    expect(paths[0]!.numbers).toHaveLength(24);
  });
});
