import { describe, expect, it } from 'vitest';
import { DEFAULT_PLAN, planSchema } from './plan';
import { DEFAULT_SETTINGS, settingsSchema } from './settings';

describe('what was stored by an earlier version', () => {
  it('is read with what has come since at its first value', () => {
    const first = {
      position: 7,
      thread: '3',
      degrees: ['3'],
      loop: false,
      fixed: [{ change: 0, string: 2, fret: 8 }]
    };
    const plan = planSchema.parse(first);
    expect(plan).toMatchObject(first);
    expect(plan.weights).toEqual(DEFAULT_PLAN.weights);
    expect(plan).toMatchObject({ positions: [], which: 'all', every: null, reach: 'hand', approach: 'none' });
    expect(settingsSchema.parse({ theme: 'stage', leftHanded: true })).toEqual({
      ...DEFAULT_SETTINGS,
      theme: 'stage',
      leftHanded: true
    });
  });

  it('a new plan is a whole one', () => {
    expect(planSchema.parse(DEFAULT_PLAN)).toEqual(DEFAULT_PLAN);
  });

  it.each([
    [{ ...DEFAULT_PLAN, position: -1 }],
    [{ ...DEFAULT_PLAN, every: 0 }],
    [{ ...DEFAULT_PLAN, weights: { ...DEFAULT_PLAN.weights, pitch: -1 } }],
    [{ ...DEFAULT_PLAN, approach: 'magic' }],
    [{ ...DEFAULT_PLAN, strings: [] }],
    [{ ...DEFAULT_PLAN, positions: [{ change: 0, position: 99 }] }]
  ])('%#: what cannot be is not taken', (plan) => {
    expect(planSchema.safeParse(plan).success).toBe(false);
  });

  it('settings keep to instruments that are there', () => {
    expect(settingsSchema.safeParse({ tuning: 'H2 X3 Y4' }).success).toBe(false);
    expect(settingsSchema.safeParse({ frets: 12 }).success).toBe(false);
    expect(settingsSchema.safeParse({ span: 7 }).success).toBe(false);
    expect(
      settingsSchema.safeParse({ tuning: 'C2 G2 C3 G3 C4 E4', frets: 24, span: 6, capo: 5 }).success
    ).toBe(true);
  });
});
