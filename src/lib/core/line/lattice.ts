/**
 * The cheapest lines through a lattice of slots and cells, exactly, with the k best. A cost may depend on the two cells of a step, on
 * the direction the line has, and on how long it has had it; so that is what the state holds. It knows of pitch, nothing else of music.
 */

import { firstOf, nth } from '../base/list';
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

/** The steps into a slot, from each cell of the one before. */
interface Steps {
  /** Whether the next cell is lower (0), the same (1) or higher (2), by `before * cells + cell`. */
  readonly signs: Uint8Array;
  /** What the step costs with the cell itself, by the same. */
  readonly costs: Float64Array;
  /** What it costs to leave a way down, no way, or a way up, by `3 * before`. */
  readonly turns: Float64Array;
}

interface Lattice {
  /** How many cells each slot has. */
  readonly sizes: readonly number[];
  readonly first: Float64Array;
  readonly into: (slot: number) => Steps;
  /** What a step costs for notes that run one way, by their number. */
  readonly runs: Float64Array;
}

/** Steps that are worked out once and kept, where they are no more: some 40 MB. */
const MOST_KEPT = 4e6;

function latticeOf<Cell extends { readonly midi: Midi }>(problem: LatticeProblem<Cell>): Lattice {
  const { slots, own, running } = problem;
  const sizes = slots.map(({ length }) => length);
  const kept: Steps[] = [];
  return {
    sizes,
    first: Float64Array.from(firstOf(slots), (cell) => own(cell, 0)),
    into: isKept(sizes)
      ? (slot) => (kept[slot] ??= stepsInto(slot, problem))
      : (slot) => stepsInto(slot, problem),
    runs: Float64Array.from({ length: LONGEST_RUN + 1 }, (_, run) => (run === 0 ? 0 : running(run)))
  };
}

const isKept = (sizes: readonly number[]) =>
  sizes.reduce((sum, size, slot) => sum + size * (sizes[slot + 1] ?? 0), 0) <= MOST_KEPT;

function stepsInto<Cell extends { readonly midi: Midi }>(
  slot: number,
  { slots, own, step, turn }: LatticeProblem<Cell>
): Steps {
  const [before, cells] = [nth(slots, slot - 1), nth(slots, slot)];
  const alone = cells.map((cell) => own(cell, slot));
  const signs = new Uint8Array(before.length * cells.length);
  const costs = new Float64Array(signs.length);
  before.forEach((from, a) =>
    cells.forEach((to, b) => {
      const at = a * cells.length + b;
      signs[at] = Math.sign(to.midi - from.midi) + 1;
      costs[at] = step(from, to, slot) + alone[b]!;
    })
  );
  const turns = Float64Array.from(before.flatMap((from) => [turn(from, -1, slot), 0, turn(from, 1, slot)]));
  return { signs, costs, turns };
}

/** Finds the k cheapest ways through all slots. A sequence of cells has one sequence of states, so that all ways differ. */
export function waysThrough<Cell extends { readonly midi: Midi }>(
  problem: LatticeProblem<Cell>
): FoundWays<Cell> {
  const { slots, k } = problem;
  const first = slots[0];
  if (!first) return { ways: [] };
  if (first.length === 0) return { ways: [], stuckAt: 0 };
  const lattice = latticeOf(problem);
  const isBounded = k > 1 && isKept(lattice.sizes);
  const costs: Float64Array[] = [];
  const simple = isBounded ? swept(lattice, 1, { onSlot: (own) => costs.push(own) }) : swept(lattice, k);
  if (simple.stuckAt !== undefined) return { ways: [], stuckAt: simple.stuckAt };
  const { ends, origins } = isBounded ? swept(lattice, k, { bound: bounded(lattice, costs, k) }) : simple;
  return { ways: cheapest(ends, k).map((end) => traced(slots, origins, ends[end]!, end, k)) };
}

/** What the ways that are looked for cost at most, and what each state of each slot costs at least from there to the end. */
interface Bound {
  readonly most: number;
  readonly toGo: readonly Float64Array[];
}

interface Swept {
  /** Of each cell and state of the last slot: the k lowest costs. */
  readonly ends: Float64Array;
  /** Of each slot but the first, where those costs come from in the slot before. */
  readonly origins: readonly Int32Array[];
  /** The first slot that cannot be reached. */
  readonly stuckAt?: number;
}

/** Slot by slot, the k lowest costs of each cell and state, told to `onSlot`; within a bound only those that belong to a way within it. */
function swept(
  { sizes, first, into: stepsTo, runs }: Lattice,
  k: number,
  { bound, onSlot }: { readonly bound?: Bound; readonly onSlot?: (costs: Float64Array) => void } = {}
): Swept {
  let before = new Float64Array(first.length * STATES * k).fill(Infinity);
  first.forEach((cost, i) => (before[i * STATES * k] = cost));
  onSlot?.(before);
  const origins: Int32Array[] = [];
  for (let slot = 1; slot < sizes.length; slot++) {
    const size = nth(sizes, slot);
    const { signs, costs: steps, turns } = stepsTo(slot);
    const reached = new Float64Array(size * STATES * k).fill(Infinity);
    const from = new Int32Array(reached.length).fill(-1);
    const toGo = bound && nth(bound.toGo, slot);
    let isReached = false;
    for (let a = 0; a < nth(sizes, slot - 1); a++) {
      const base = a * STATES * k;
      const alive = statesAlive(before, base, k);
      if (alive.length === 0) continue;
      for (let b = 0; b < size; b++) {
        const at = a * size + b;
        const cost = steps[at]!;
        if (cost === Infinity) continue;
        isReached = true;
        const next = NEXT[signs[at]!]!;
        for (const state of alive) {
          const lowest = base + state * k;
          const more = cost + turns[3 * a + next.turnsFrom[state]! + 1]! + runs[next.run[state]!]!;
          const goal = b * STATES + next.state[state]!;
          const into = goal * k;
          const most = bound ? bound.most - toGo![goal]! : Infinity;
          for (let rank = lowest; rank < lowest + k; rank++) {
            const total = before[rank]! + more;
            if (total > most || total >= reached[into + k - 1]!) break;
            insert(reached, from, into, k, total, rank);
          }
        }
      }
    }
    if (!isReached) return { ends: before, origins, stuckAt: slot };
    before = reached;
    onSlot?.(before);
    origins.push(from);
  }
  return { ends: before, origins };
}

/** Sums in another order may differ in their last digits. */
const ROUNDING = 1e-9;

/**
 * A bound that the k cheapest ways keep. Every way is in one state of each slot, so that the best ways through the states of one slot are
 * all different: the k-th of those is dear enough, and the lowest over all slots the nearest such bound.
 */
function bounded(lattice: Lattice, costs: readonly Float64Array[], k: number): Bound {
  const toGo = costsToGo(lattice);
  const most = costs.map((soFar, slot) => {
    const rest = nth(toGo, slot);
    return soFar.map((cost, at) => cost + rest[at]!).sort()[k - 1] ?? Infinity;
  });
  return { most: Math.min(...most) + ROUNDING, toGo };
}

/** Of each slot, cell and state: what the cheapest way from there to the end costs. */
function costsToGo({ sizes, into, runs }: Lattice): Float64Array[] {
  const toGo = sizes.map((size) => new Float64Array(size * STATES));
  for (let slot = sizes.length - 1; slot > 0; slot--) {
    const size = nth(sizes, slot);
    const { signs, costs: steps, turns } = into(slot);
    const [here, then] = [nth(toGo, slot - 1).fill(Infinity), nth(toGo, slot)];
    for (let at = 0; at < steps.length; at++) {
      const cost = steps[at]!;
      if (cost === Infinity) continue;
      const [a, b] = [Math.floor(at / size), at % size];
      const next = NEXT[signs[at]!]!;
      for (let state = 0; state < STATES; state++) {
        const more = cost + turns[3 * a + next.turnsFrom[state]! + 1]! + runs[next.run[state]!]!;
        const total = more + then[b * STATES + next.state[state]!]!;
        if (total < here[a * STATES + state]!) here[a * STATES + state] = total;
      }
    }
  }
  return toGo;
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
