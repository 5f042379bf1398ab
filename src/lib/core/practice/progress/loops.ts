/** Rows of the log taken apart into the loops that were played, each with the bars it went over and where it went wrong. */
import { lastOf } from '../../base/list';
import type { Bars, LogRow } from '../log/model';

/** Bars of a form where neither the item nor its log says how many it has. */
export const UNKNOWN_BARS = 16;
/** What a loop marked as not clean counts, where nothing tells how often it went wrong. */
const UNCLEAN = 2;
/** Loops of one row that are read; more at one tempo tell nothing new. */
const MOST_LOOPS = 64;

/** One time through a stretch. */
export interface Loop {
  /** The stretch; null for the whole of the item. */
  readonly bars: Bars | null;
  readonly length: number;
  readonly tempo: number;
  readonly stumbles: number;
  /** The bars of the stumbles, as far as they are known. */
  readonly at: readonly number[];
}

/** Bars in a stretch. */
export const lengthOf = ({ from, to }: Bars) => to - from + 1;

const NONE: readonly number[] = [];

/** A loop that was played so many times alike. */
export interface Loops {
  readonly loop: Loop;
  readonly count: number;
}

const NO_LOOPS: readonly Loops[] = [];

/**
 * The loops of a row, in the order played; none where nothing was said of how they went. Stumbles that are told bar by bar go
 * before the mark. `bars`: of the item.
 */
export function loopsOf(row: LogRow, bars: number): readonly Loops[] {
  const { tempo, clean } = row;
  if (tempo === null) return NO_LOOPS;
  const played = row.bars ? lengthOf(row.bars) : bars;
  const own = row.bars && played < bars ? row.bars : null;
  const byLoop = stumblesByLoop(row);
  if (byLoop) {
    return byLoop.map((at) => ({
      loop: { bars: own, length: played, tempo, stumbles: at.length, at },
      count: 1
    }));
  }
  if (clean === null) return NO_LOOPS;
  const count = Math.min(typeof row.loops === 'number' ? row.loops : row.rounds, MOST_LOOPS);
  return [{ loop: { bars: own, length: played, tempo, stumbles: clean ? 0 : UNCLEAN, at: NONE }, count }];
}

/** Where each loop went wrong; null where the row does not tell. */
function stumblesByLoop({ loops, missed, clean, rounds }: LogRow): readonly (readonly number[])[] | null {
  if (loops !== undefined && typeof loops !== 'number') return loops.slice(0, MOST_LOOPS);
  if (missed === undefined || (missed.length === 0 && clean !== true)) return null;
  return spread(missed, Math.min(loops ?? rounds, MOST_LOOPS));
}

/** Stumbles in the order played, in so many loops: a bar that is no later than the one before was played in a later loop. */
function spread(stumbles: readonly number[], count: number): readonly (readonly number[])[] {
  const groups: number[][] = [];
  for (const bar of stumbles) {
    const last = groups.at(-1);
    if (last && (bar > lastOf(last) || groups.length >= count)) last.push(bar);
    else groups.push([bar]);
  }
  const loops: (readonly number[])[] = Array.from({ length: count }, () => NONE);
  groups.forEach((group, i) => (loops[Math.floor((i * count) / groups.length)] = group));
  return loops;
}
