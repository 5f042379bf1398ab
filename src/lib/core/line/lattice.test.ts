import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { LONGEST_RUN, waysThrough, type LatticeProblem, type Way } from './lattice';

interface Cell {
  readonly midi: number;
}

/** Costs by arithmetic alone, different for every step. */
const COSTS: Omit<LatticeProblem<Cell>, 'slots' | 'k'> = {
  own: ({ midi }, slot) => ((midi * 7 + slot * 3) % 5) / 2,
  step: (from, to, slot) =>
    (from.midi + 2 * to.midi + slot) % 11 === 0 ? Infinity : ((from.midi * to.midi) % 7) / 3,
  turn: ({ midi }, way) => (midi % 3) + (way === 1 ? 0.5 : 0.25),
  running: (run) => (run > 2 ? 0.4 * run : 0)
};

/** Every way through, counted one by one in another way. */
function everyWay(slots: readonly (readonly Cell[])[]): number[] {
  const costs: number[] = [];
  const go = (slot: number, from: Cell, way: Way | 0, run: number, cost: number) => {
    if (slot === slots.length) {
      if (cost < Infinity) costs.push(cost);
      return;
    }
    for (const to of slots[slot]!) {
      const sign = Math.sign(to.midi - from.midi) as Way | 0;
      const isTurn = sign !== 0 && way !== 0 && sign !== way;
      const now = sign === 0 ? run : sign === way ? Math.min(LONGEST_RUN, run + 1) : 1;
      const more =
        COSTS.own(to, slot) +
        COSTS.step(from, to, slot) +
        (isTurn ? COSTS.turn(from, way as Way, slot) : 0) +
        (sign === 0 ? 0 : COSTS.running(now));
      go(slot + 1, to, sign === 0 ? way : sign, now, cost + more);
    }
  };
  for (const cell of slots[0]!) go(1, cell, 0, 0, COSTS.own(cell, 0));
  return costs.sort((a, b) => a - b);
}

describe('the cheapest ways through a lattice', () => {
  it('are those that trying them all finds, the k cheapest in order, all different', () => {
    const cells = fc
      .uniqueArray(fc.integer({ min: 50, max: 60 }), { minLength: 1, maxLength: 4 })
      .map((midis) => midis.map((midi) => ({ midi })));
    fc.assert(
      fc.property(
        fc.array(cells, { minLength: 1, maxLength: 6 }),
        fc.integer({ min: 1, max: 40 }),
        (slots, k) => {
          const { ways } = waysThrough({ ...COSTS, slots, k });
          const all = everyWay(slots);
          expect(ways.map(({ cost }) => Number(cost.toFixed(6)))).toEqual(
            all.slice(0, k).map((cost) => Number(cost.toFixed(6)))
          );
          const told = ways.map((way) => way.cells.map(({ midi }) => midi).join());
          expect(new Set(told).size).toBe(ways.length);
        }
      ),
      { numRuns: 150 }
    );
  });

  it('says where it is stuck', () => {
    const slots = [[{ midi: 50 }], [{ midi: 52 }], [{ midi: 55 }]];
    const step = (_: Cell, to: Cell) => (to.midi === 55 ? Infinity : 0);
    expect(waysThrough({ ...COSTS, step, slots, k: 1 })).toEqual({ ways: [], stuckAt: 2 });
    expect(waysThrough({ ...COSTS, slots: [[]], k: 1 })).toEqual({ ways: [], stuckAt: 0 });
    expect(waysThrough({ ...COSTS, slots: [], k: 1 })).toEqual({ ways: [] });
  });
});
