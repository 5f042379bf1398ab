import { describe, expect, it } from 'vitest';
import { readSheet } from '../harmony/sheet';
import { DEFAULT_PLAN } from './model';
import { meantTargets } from './pin-times';

const { form } = readSheet('{key: Db}\n| Ebm7 | Ab7 | Dbmaj7 |');
const plan = {
  ...DEFAULT_PLAN,
  decisions: [{ change: 1, pins: [{ string: 2, fret: 7, when: 'early' as const }] }]
};

describe('targets as they are meant', () => {
  it('stand at their change, early where they are pinned so, and at their own time where that is kept', () => {
    const meant = meantTargets([{ change: 0 }, { change: 1 }, { change: 2, at: 8.5 }], plan, form);
    expect(meant.map(({ at }) => at)).toEqual([0, 3.5, 8.5]);
  });
});
