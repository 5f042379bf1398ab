/**
 * The cheapest lines through a lattice of slots and cells, exactly, with the k best. A cost may depend on the two cells of a step, on
 * the direction the line has, and on how long it has had it; so that is what the state holds. It knows of pitch, nothing else of music.
 */

import { nth } from '../base/list';
import type { Midi } from '../base/units';

export type Way = 1 | -1;

export interface LatticeProblem<Cell extends { readonly midi: Midi }> {
  /** What each slot is chosen from. */
  readonly slots: readonly (readonly Cell[])[];
  /** What a cell costs in a slot by itself; at least 0. */
  readonly own: (cell: Cell, slot: number) => number;
  /** What a step into a slot costs, whatever came before; Infinity forbids it. */
  readonly step: (from: Cell, to: Cell, slot: number) => number;
  /** What turning costs that leaves a direction at a cell. */
  readonly turn: (from: Cell, way: Way, slot: number) => number;
  /** What so many notes one way cost with this one; `run` is at most `LONGEST_RUN`. */
  readonly running: (run: number) => number;
  readonly k: number;
}

export interface FoundWay<Cell> {
  readonly cost: number;
  readonly cells: readonly Cell[];
}

export interface FoundWays<Cell> {
  /** The cheapest first, all different; at most k. */
  readonly ways: readonly FoundWay<Cell>[];
  /** The first slot that cannot be reached, where there is no way. */
  readonly stuckAt?: number;
}

/** Notes one way are counted so far. */
export const LONGEST_RUN = 9;
/** Of a cell: no direction yet, or so many notes up, or down. */
const STATES = 2 * LONGEST_RUN + 1;

const stateOf = (way: Way, run: number) => (way === 1 ? run : LONGEST_RUN + run);
const wayOf = (state: number): Way | 0 => (state === 0 ? 0 : state <= LONGEST_RUN ? 1 : -1);
const runOf = (state: number) => (state <= LONGEST_RUN ? state : state - LONGEST_RUN);

/** For a step down, to the same pitch and up: where each state goes, which way it turns from (0 for none), and how long it has run then. */
const NEXT = ([-1, 0, 1] as const).map((sign) => {
  const state = new Uint8Array(STATES);
  const turnsFrom = new Int8Array(STATES);
  const run = new Uint8Array(STATES);
  for (let from = 0; from < STATES; from++) {
    const had = wayOf(from);
    if (sign === 0) {
      state[from] = from;
      continue;
    }
    run[from] = had === sign ? Math.min(LONGEST_RUN, runOf(from) + 1) : 1;
    state[from] = stateOf(sign, run[from]!);
    turnsFrom[from] = had === sign ? 0 : had;
  }
  return { state, turnsFrom, run };
});

/** Finds the k cheapest ways through all slots. A sequence of cells has one sequence of states, so that all ways differ. */
export function waysThrough<Cell extends { readonly midi: Midi }>({
  slots,
  own,
  step,
  turn,
  running,
  k
}: LatticeProblem<Cell>): FoundWays<Cell> {
  const first = slots[0];
  if (!first) return { ways: [] };
  const runs = Float64Array.from({ length: LONGEST_RUN + 1 }, (_, run) => (run === 0 ? 0 : running(run)));
  let costs = new Float64Array(first.length * STATES * k).fill(Infinity);
  first.forEach((cell, i) => (costs[i * STATES * k] = own(cell, 0)));
  if (first.length === 0) return { ways: [], stuckAt: 0 };
  const origins: Int32Array[] = [];
  for (let slot = 1; slot < slots.length; slot++) {
    const before = nth(slots, slot - 1);
    const cells = nth(slots, slot);
    const reached = new Float64Array(cells.length * STATES * k).fill(Infinity);
    const from = new Int32Array(reached.length).fill(-1);
    const alone = Float64Array.from(cells, (cell) => own(cell, slot));
    let isReached = false;
    for (let a = 0; a < before.length; a++) {
      const base = a * STATES * k;
      const alive = statesAlive(costs, base, k);
      if (alive.length === 0) continue;
      const left = nth(before, a);
      const [turnDown, turnUp] = [turn(left, -1, slot), turn(left, 1, slot)];
      for (let b = 0; b < cells.length; b++) {
        const cell = cells[b]!;
        const cost = step(left, cell, slot) + alone[b]!;
        if (cost === Infinity) continue;
        isReached = true;
        const next = NEXT[Math.sign(cell.midi - left.midi) + 1]!;
        for (const state of alive) {
          const best = base + state * k;
          const turned = next.turnsFrom[state]!;
          const more = cost + (turned === 0 ? 0 : turned === 1 ? turnUp : turnDown) + runs[next.run[state]!]!;
          const into = (b * STATES + next.state[state]!) * k;
          for (let rank = best; rank < best + k; rank++) {
            const total = costs[rank]! + more;
            if (total >= reached[into + k - 1]!) break;
            insert(reached, from, into, k, total, rank);
          }
        }
      }
    }
    if (!isReached) return { ways: [], stuckAt: slot };
    costs = reached;
    origins.push(from);
  }
  return { ways: cheapest(costs, k).map((end) => traced(slots, origins, costs[end]!, end, k)) };
}

function statesAlive(costs: Float64Array, base: number, k: number): number[] {
  const alive: number[] = [];
  for (let state = 0; state < STATES; state++) if (costs[base + state * k]! < Infinity) alive.push(state);
  return alive;
}

function cheapest(costs: Float64Array, k: number): number[] {
  const ends: number[] = [];
  costs.forEach((cost, at) => {
    if (cost < Infinity) ends.push(at);
  });
  return ends.sort((a, b) => costs[a]! - costs[b]! || a - b).slice(0, k);
}

function traced<Cell>(
  slots: readonly (readonly Cell[])[],
  origins: readonly Int32Array[],
  cost: number,
  end: number,
  k: number
): FoundWay<Cell> {
  const cells: Cell[] = [];
  for (let slot = slots.length - 1, at = end; slot >= 0; slot--) {
    cells.unshift(nth(nth(slots, slot), Math.floor(at / (STATES * k))));
    if (slot > 0) at = nth(origins, slot - 1)[at]!;
  }
  return { cost, cells };
}

/** Puts a cost into an ascending run of k, dropping the dearest. */
function insert(
  costs: Float64Array,
  from: Int32Array,
  slot: number,
  k: number,
  cost: number,
  origin: number
) {
  let at = slot + k - 1;
  while (at > slot && costs[at - 1]! > cost) {
    costs[at] = costs[at - 1]!;
    from[at] = from[at - 1]!;
    at--;
  }
  costs[at] = cost;
  from[at] = origin;
}
