/**
 * Sequences: a cell of three to six notes moved by a step of the scale, a third or an octave, again and again under one hand. Of all cells
 * and ways that a stretch has room for the one is taken that ends nearest to what comes. Source: docs/music-rules.md, Finding a line.
 */
import { firstOf, lastOf, nth } from '../../base/list';
import type { Ticks } from '../../base/units';
import { chanceOf } from '../chance';
import { TICKS } from '../model';
import type { PlannedSlot } from './costs';
import { slotsOf, solved, stretchesOf, type FindWish, type FoundLine, type FoundLines } from './find';
import { SLOT_LEVELS } from './levels';
import type { LineArea, PoolCell } from './pool';

/** Steps above its first note, in the ladder of what is played there. */
type SequenceCell = readonly number[];

const CELLS: readonly SequenceCell[] = [
  [0, 1, 2],
  [0, 1, 2, 3],
  [0, 2, 1],
  [0, 1, 2, 0],
  [0, 2, 1, 3],
  [2, 1, 0],
  [0, 1, 2, 4],
  [0, 2, 4, 2],
  [0, 1, 2, 3, 1],
  [0, 2, 1, 3, 2, 4]
];
/** By a step or a third, up or down; in ladders of seven by an octave as well. */
const MOVES = [1, -1, 2, -2, 7, -7] as const;

/** What a cell costs that turns round, that stands on an avoid note or another stranger on a beat, that ends far from the target, by semitone. */
const COSTS = { turn: 1, avoid: 1.2, stranger: 0.3, far: 0.3, again: 0.6, seed: 0.9 } as const;
const NEAR = 2;
const FEWEST_STEPS = 4;

/** A cell that climbs or falls by a step, a third or an octave. Source: docs/music-rules.md, Finding a line. */
export function findSequence(wish: FindWish): FoundLines {
  const bound = { ...wish, areaOf: handOf(wish) };
  const stretches = stretchesOf(bound);
  const narrow = stretches.find(({ pool }) => ladderOf(pool).length < FEWEST_STEPS);
  if (narrow) {
    const { index, symbol } = narrow.change;
    const message = `Too few notes of what is played over ${symbol} lie under the hand there for a sequence; allow more of the neck.`;
    return { lines: [], noLine: { change: index, message } };
  }
  const slots = slotsOf(SLOT_LEVELS.sequence, bound, stretches);
  const lines: FoundLine[] = [];
  const known = new Set<string>();
  for (let n = 0; n < wish.alternatives * TRIES && lines.length < wish.alternatives; n++) {
    const seed = wish.seed + n * SEED_STEP;
    const filled = sequenced(slots, seed);
    const found = solved(filled, { seed: 0, alternatives: 1 }, stretches);
    if (found.noLine) return found;
    const [line] = found.lines;
    if (!line) continue;
    const text = line.notes.map(({ midi }) => midi).join();
    if (known.has(text)) continue;
    known.add(text);
    lines.push({ ...line, exact: false });
  }
  return { lines };
}

const TRIES = 4;
const SEED_STEP = 7919;

/** Where no hand is asked for, it lies at the target of each change. */
function handOf({ areaOf, path, neck }: FindWish): FindWish['areaOf'] {
  const frets = new Map(path.targets.map(({ change, cell }) => [change, cell.fret]));
  let last = path.targets[0]?.cell.fret ?? 5;
  return (change): LineArea => {
    const area = areaOf(change);
    if (area.position !== undefined || area.window) return area;
    last = frets.get(change) ?? last;
    return { ...area, position: Math.max(neck.capo + 1, Math.min(neck.frets - 3, last - 1)) };
  };
}

/** What is played there from the lowest pitch up, one cell a pitch. */
function ladderOf(pool: readonly PoolCell[]): PoolCell[] {
  const steps = new Map<number, PoolCell>();
  for (const cell of pool) if (cell.kind !== 'chromatic' && !steps.has(cell.midi)) steps.set(cell.midi, cell);
  return [...steps.values()].sort((a, b) => a.midi - b.midi);
}

/** Every slot with the one cell that its sequence has there. */
function sequenced(slots: readonly PlannedSlot[], seed: number): PlannedSlot[] {
  const out: PlannedSlot[] = [];
  let last: PoolCell | null = null;
  let before = '';
  for (let from = 0; from < slots.length;) {
    let to = from + 1;
    while (to < slots.length && !nth(slots, to).lands) to++;
    const part = slots.slice(from, to);
    const free = part.filter(({ cells }, i) => i === 0 || cells.length > 1);
    const ladder = ladderOf(part.flatMap(({ cells }) => cells));
    const start = startIn(firstOf(part), ladder, last);
    const next = slots[to]?.cells;
    const goal = next?.length === 1 ? firstOf(next) : null;
    const best = cheapest(free, ladder, start, goal, { seed, part: from, before });
    before = best.name;
    let n = 0;
    for (const slot of part) {
      const cell = free.includes(slot) ? nth(best.cells, n++) : firstOf(slot.cells);
      out.push({ ...slot, cells: [cell], must: undefined, goes: 'freely', standing: 0 } as PlannedSlot);
      last = cell;
    }
    from = to;
  }
  return out;
}

/** The step it begins on: the target, else the one nearest to where the line was. */
function startIn({ cells }: PlannedSlot, ladder: readonly PoolCell[], last: PoolCell | null): number {
  const aim = cells.length === 1 ? firstOf(cells).midi : (last?.midi ?? nth(ladder, ladder.length >> 1).midi);
  const away = ladder.map(({ midi }) => Math.abs(midi - aim));
  return away.indexOf(Math.min(...away));
}

interface Sequence {
  readonly name: string;
  readonly cells: readonly PoolCell[];
  readonly cost: number;
}

function cheapest(
  slots: readonly PlannedSlot[],
  ladder: readonly PoolCell[],
  start: Ticks,
  goal: PoolCell | null,
  { seed, part, before }: { readonly seed: number; readonly part: number; readonly before: string }
): Sequence {
  const all = CELLS.flatMap((cell, c) =>
    MOVES.flatMap((move, m): Sequence[] => {
      const found = walked(slots.length, ladder, start, cell, move);
      if (!found) return [];
      const own = found.steps.map((step) => nth(ladder, step));
      const name = `${c} ${Math.abs(move)}`;
      let cost = COSTS.turn * found.turns + (name === before ? 0 : COSTS.again);
      own.forEach(({ kind }, i) => {
        if (i === 0 || nth(slots, i).start % TICKS !== 0) return;
        cost += kind === 'avoid' ? COSTS.avoid : kind === 'chord' ? 0 : COSTS.stranger;
      });
      const end = lastOf(own);
      if (goal) {
        const far = Math.abs(goal.midi - end.midi);
        cost += far === 0 ? COSTS.far * NEAR : COSTS.far * Math.max(0, far - NEAR);
      }
      if (seed !== 0) cost += COSTS.seed * chanceOf(seed, part, c, m)();
      return [{ name, cells: own, cost }];
    })
  );
  // A ladder of four steps has room for a cell of three at least.
  return all.reduce((best, one) => (one.cost < best.cost ? one : best));
}

/** The steps of a cell moved on and on; it turns round where the ladder ends. Null where it has no room at all. */
function walked(
  count: number,
  ladder: readonly PoolCell[],
  start: Ticks,
  cell: SequenceCell,
  move: number
): { readonly steps: readonly number[]; readonly turns: number } | null {
  const offsets = cell.map((step) => step - firstOf(cell));
  const fits = (base: number) => offsets.every((step) => ladder[base + step] !== undefined);
  if (!fits(start)) return null;
  const steps: number[] = [];
  let [base, by, turns] = [start, move, 0];
  while (steps.length < count) {
    for (const step of offsets) if (steps.length < count) steps.push(base + step);
    if (steps.length >= count) break;
    if (!fits(base + by)) {
      by = -by;
      turns++;
      if (!fits(base + by)) return null;
    }
    base += by;
  }
  return { steps, turns };
}
