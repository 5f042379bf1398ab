/**
 * The exact path solver: the k cheapest ways through a sequence of stages, each a choice of one candidate, where the
 * cost is the sum of candidate costs and step costs. It knows nothing of music.
 *
 * Forward dynamic programming that keeps the k best partial paths into every candidate. A closed loop is solved for
 * each first candidate in turn. Two lower bounds spare most of that work and keep it exact: first candidates are
 * taken in groups, for each of which one backward pass says what a path must still cost at least to come back to any
 * of the group; starts that cannot beat the k-th best path are never tried, partial paths that cannot are dropped.
 */

import { firstOf, lastOf, nth } from '../base/list';

export interface PathProblem {
  /** Cost of each candidate: `nodes[stage][candidate]`. All finite and at least 0. */
  readonly nodes: readonly (readonly number[])[];
  /** For each stage but the last, the costs of its steps to the next; Infinity where a step is not allowed. */
  readonly steps: readonly StepTable[];
  /** Cost of the step from the last stage back to the first; null for an open path. */
  readonly close: ((a: number, b: number) => number) | null;
  readonly k: number;
  /** Told from time to time how much of the work is done, 0 to 1. */
  readonly onProgress?: (done: number) => void;
}

export interface SolvedPath {
  readonly cost: number;
  /** The candidate taken in each stage. */
  readonly choice: readonly number[];
}

export interface Solution {
  /** At most k paths, cheapest first, all different. */
  readonly paths: readonly SolvedPath[];
  /** The first stage that cannot be reached, where there is no path. */
  readonly stuckAt?: number;
}

/** Steps as one row-major table: the cost from candidate `a` to candidate `b` stands at `a · size of the next + b`. */
export type StepTable = Float64Array;

/** A table of steps from `from` candidates to `to`. */
export function stepTable(from: number, to: number, cost: (a: number, b: number) => number): StepTable {
  const table = new Float64Array(from * to);
  for (let a = 0; a < from; a++) {
    for (let b = 0; b < to; b++) table[a * to + b] = cost(a, b);
  }
  return table;
}

/** Solves a path problem exactly. */
export function solvePaths(problem: PathProblem): Solution {
  const { nodes, steps, k } = problem;
  if (nodes.length === 0) return { paths: [] };
  const stuckAt = firstStuck(nodes, steps);
  if (stuckAt !== null) return { paths: [], stuckAt };
  const close = problem.close;
  if (!close) {
    return {
      paths: sweep({ nodes, steps, toGo: toGoFrom(nodes, steps, () => 0), k }, null, () => 0, Infinity)
    };
  }
  let paths: SolvedPath[] = [];
  const tried = starts(nodes, steps, close);
  for (const [i, { start, bound, toGo }] of tried.entries()) {
    problem.onProgress?.(i / tried.length);
    const limit = paths.length === k ? lastOf(paths).cost : Infinity;
    if (bound >= limit) break;
    const found = sweep({ nodes, steps, toGo, k }, start, (last) => close(last, start), limit);
    paths = [...paths, ...found].sort((a, b) => a.cost - b.cost).slice(0, k);
  }
  return { paths };
}

/** The first candidates of a loop, most promising first, each with the bounds of its group. */
function starts(
  nodes: PathProblem['nodes'],
  steps: readonly StepTable[],
  close: NonNullable<PathProblem['close']>
): { start: number; bound: number; toGo: readonly Float64Array[] }[] {
  const first = firstOf(nodes);
  // Neighbours in the list are near in cost; groups of about the square root balance the passes and their tightness.
  const size = Math.ceil(Math.sqrt(first.length));
  const found = [];
  for (let from = 0; from < first.length; from += size) {
    const group = first.slice(from, from + size).map((_, i) => from + i);
    const toGo = toGoFrom(nodes, steps, (last) => Math.min(...group.map((start) => close(last, start))));
    for (const start of group) found.push({ start, bound: nth(first, start) + firstOf(toGo)[start]!, toGo });
  }
  return found.sort((a, b) => a.bound - b.bound);
}

/** The first stage without a candidate that any allowed step reaches; null where there is a way through. */
function firstStuck(nodes: PathProblem['nodes'], steps: readonly StepTable[]): number | null {
  let open = firstOf(nodes).map(() => true);
  if (open.length === 0) return 0;
  for (let stage = 1; stage < nodes.length; stage++) {
    const size = nth(nodes, stage).length;
    const table = nth(steps, stage - 1);
    const reached = nth(nodes, stage).map((_, b) =>
      open.some((ok, a) => ok && table[a * size + b]! < Infinity)
    );
    if (!reached.some(Boolean)) return stage;
    open = reached;
  }
  return null;
}

/** For every candidate the least that the rest of a path after it costs, its closing included. */
function toGoFrom(
  nodes: PathProblem['nodes'],
  steps: readonly StepTable[],
  closing: (last: number) => number
): Float64Array[] {
  const toGo = nodes.map((stage) => new Float64Array(stage.length));
  lastOf(nodes).forEach((_, last) => (lastOf(toGo)[last] = closing(last)));
  for (let stage = nodes.length - 2; stage >= 0; stage--) {
    const size = nth(nodes, stage + 1).length;
    const after = nth(toGo, stage + 1);
    const rest = Float64Array.from(nth(nodes, stage + 1), (cost, b) => cost + after[b]!);
    const table = nth(steps, stage);
    const own = nth(toGo, stage);
    for (let a = 0; a < own.length; a++) {
      let best = Infinity;
      for (let b = 0, at = a * size; b < size; b++, at++) {
        const cost = table[at]! + rest[b]!;
        if (cost < best) best = cost;
      }
      own[a] = best;
    }
  }
  return toGo;
}

/** Costs that differ by less than this are rounding. */
const EPSILON = 1e-9;

interface Prepared {
  readonly nodes: PathProblem['nodes'];
  readonly steps: readonly StepTable[];
  /** From every candidate, the least that the rest costs. */
  readonly toGo: readonly Float64Array[];
  readonly k: number;
}

/** One forward pass, from all candidates of the first stage or from one; paths dearer than `limit` are dropped. */
function sweep(
  { nodes, steps, toGo, k }: Prepared,
  start: number | null,
  closing: (last: number) => number,
  limit: number
): SolvedPath[] {
  const ceiling = limit + EPSILON;
  /** The k best costs into each candidate, ascending, padded with Infinity; and where each came from. */
  let costs = new Float64Array(firstOf(nodes).length * k).fill(Infinity);
  firstOf(nodes).forEach((cost, i) => {
    if (start === null || start === i) costs[i * k] = cost;
  });
  const origins: Int32Array[] = [];
  for (let stage = 1; stage < nodes.length; stage++) {
    const before = nth(nodes, stage - 1).length;
    const own = nth(nodes, stage);
    const size = own.length;
    const table = nth(steps, stage - 1);
    const rest = nth(toGo, stage - 1);
    const next = new Float64Array(size * k).fill(Infinity);
    const origin = new Int32Array(size * k).fill(-1);
    for (let a = 0; a < before; a++) {
      for (let rank = a * k; rank < (a + 1) * k; rank++) {
        const cost = costs[rank]!;
        // Nothing that leads on from here, nor from the dearer ways to here, can come in under the limit.
        if (cost === Infinity || cost + rest[a]! > ceiling) break;
        for (let b = 0, at = a * size; b < size; b++, at++) {
          const total = cost + table[at]! + own[b]!;
          if (total < next[b * k + k - 1]!) insert(next, origin, b * k, k, total, rank);
        }
      }
    }
    costs = next;
    origins.push(origin);
  }
  const ends: { cost: number; at: number }[] = [];
  costs.forEach((cost, at) => {
    const total = cost === Infinity ? Infinity : cost + closing(Math.floor(at / k));
    if (total < Infinity) ends.push({ cost: total, at });
  });
  return ends
    .sort((a, b) => a.cost - b.cost)
    .slice(0, k)
    .map(({ cost, at }) => ({ cost, choice: traceBack(origins, at, k) }));
}

/** Puts a cost into an ascending run of k, dropping the dearest. */
function insert(
  costs: Float64Array,
  origin: Int32Array,
  slot: number,
  k: number,
  cost: number,
  from: number
): void {
  let at = slot + k - 1;
  while (at > slot && costs[at - 1]! > cost) {
    costs[at] = costs[at - 1]!;
    origin[at] = origin[at - 1]!;
    at--;
  }
  costs[at] = cost;
  origin[at] = from;
}

function traceBack(origins: readonly Int32Array[], end: number, k: number): number[] {
  const choice = [Math.floor(end / k)];
  let at = end;
  for (let stage = origins.length - 1; stage >= 0; stage--) {
    at = nth(origins, stage)[at]!;
    choice.push(Math.floor(at / k));
  }
  return choice.reverse();
}
