import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { rangeOf } from './scroll-window.svelte';

describe('what is in sight', () => {
  it('holds every item that reaches into the stretch, and few others', () => {
    const widths = fc.array(fc.integer({ min: 10, max: 200 }), { minLength: 1, maxLength: 300 });
    fc.assert(
      fc.property(
        widths,
        fc.integer({ min: 0, max: 30_000 }),
        fc.integer({ min: 1, max: 2000 }),
        (each, left, width) => {
          const starts = each.reduce<number[]>((all, one) => [...all, all.at(-1)! + one], [0]);
          const { from, to } = rangeOf(each.length, (i) => starts[i]!, left, left + width);
          each.forEach((one, i) => {
            const isSeen = starts[i]! < left + width && starts[i]! + one > left;
            if (isSeen) expect(i >= from && i < to).toBe(true);
          });
          const seen = each.filter((one, i) => starts[i]! < left + width && starts[i]! + one > left).length;
          expect(to - from).toBeLessThanOrEqual(seen + 4);
        }
      )
    );
  });
});
