import { describe, expect, it } from 'vitest';
import { readSheet } from '$lib/core/harmony/sheet';
import { systemOf } from '$lib/core/neck/systems/registry';
import { STANDARD } from '$lib/core/neck/tuning';
import { arrange } from '$lib/core/plan/arrange';
import { pin } from '$lib/core/plan/edits';
import { DEFAULT_PLAN, type Plan } from '$lib/core/plan/model';
import { Paths, SOLVED_AT_ONCE } from './paths.svelte';

const BARS = 'Ebmaj7 Cm7 Fm7 Bb7';
function of(bars: number, plan: Plan = DEFAULT_PLAN, isFrozen = false): Paths {
  const sheet = readSheet(`{key: Eb}\n| ${Array.from({ length: bars }, () => BARS).join(' | ')} |`);
  const arrangement = arrange({ sheet, plan }, STANDARD, systemOf('positions'));
  return new Paths(() => arrangement, isFrozen);
}

describe('the target line', () => {
  it('of a small chart is there at once, with the others beside it', () => {
    const paths = of(2);
    expect(paths.targets.size).toBe(8);
    expect(paths.others.map(({ rule }) => rule)).toEqual(['3', '7', 'alternate']);
    expect(paths.others.every(({ path }) => path?.points.length === 3 * 8)).toBe(true);
    expect(paths.figures).toMatchObject({ targets: 8 });
  });

  it('of a long chart waits for the worker, and is there in every other key at once under the hand', () => {
    const bars = SOLVED_AT_ONCE / 4 + 5;
    expect(of(bars).targets.size).toBe(0);
    expect(of(bars, DEFAULT_PLAN, true).targets.size).toBe(4 * bars);
    const everywhere: Plan = { ...DEFAULT_PLAN, reach: 'neck' };
    expect(of(bars, everywhere, true).isSolvedAtOnce).toBe(false);
  });

  it('keeps to what is pinned', () => {
    const paths = of(1, pin(DEFAULT_PLAN, 2, { string: 3, fret: 8 }));
    expect(paths.targets.get(2)).toMatchObject({ isFixed: true, cell: { string: 3, fret: 8, degree: 'b7' } });
  });

  it('asks what would be while a tone is held, pins of that change aside', () => {
    const paths = of(1, pin(DEFAULT_PLAN, 1, { string: 4, fret: 5 }));
    expect(paths.consideredJob).toBeNull();
    const cell = { ...paths.targets.get(1)!.cell, string: 2, fret: 4, midi: 63, finger: 1, stretch: false };
    paths.considered = { change: 1, cell };
    expect(paths.consideredJob!.options.fixed).toEqual([{ change: 1, string: 2, fret: 4 }]);
    expect(paths.prospect).toBeNull();
  });
});
