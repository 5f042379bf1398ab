import { describe, expect, it } from 'vitest';
import { latenessByChange, type MetOnce } from './lateness';

const met = (change: number, late: number | null, meeting: MetOnce['met'] = 'hit'): MetOnce => ({
  change,
  met: meeting,
  late
});

describe('lateness over takes', () => {
  it('is the mean of the times a target came, the latest change first', () => {
    const sums = latenessByChange([met(0, 0.1), met(0, -0.1), met(3, 0.5, 'late'), met(3, 0.3, 'late')]);
    expect(sums.map(({ change }) => change)).toEqual([3, 0]);
    expect(sums[0]).toMatchObject({ late: 0.4, apart: 0.4, times: 2 });
    expect(sums[1]).toMatchObject({ late: 0, apart: 0.1, times: 2 });
  });

  it('counts neither what never came nor another note, and a target held over the change as on time', () => {
    expect(
      latenessByChange([met(1, null, 'silent'), met(1, 0.4, 'chord tone'), met(1, 0.4, 'outside')])
    ).toEqual([]);
    expect(latenessByChange([met(2, -2)])).toEqual([{ change: 2, late: 0, apart: 0, times: 1 }]);
  });
});
