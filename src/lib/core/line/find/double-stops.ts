/**
 * Double stops: two chord tones a third, a sixth, or the dominant's 3 and 7 apart, under one hand, the target among them where it can
 * be; each led in by a semitone where there is time. The best sequence is found exactly.
 */
import { nth } from '../../base/list';
import type { Ticks } from '../../base/units';
import { solvePaths, stepTable } from '../../targets/solve';
import { TICKS, written, type LineNote } from '../model';
import { landingsOf, stretchesOf, slotLength, type FindWish, type FoundLines, type Stretch } from './find';
import type { PoolCell } from './pool';

interface Pair {
  readonly low: PoolCell;
  readonly high: PoolCell;
}

/** Semitones between the two: thirds and sixths; a tritone is the 3 and 7 of a dominant. */
const INTERVALS = new Set([3, 4, 6, 8, 9]);
/** Of a chord without a third its fourths and fifths. */
const WITHOUT_THIRD = new Set([5, 7]);
/** Double stops lie on the upper strings, where they are clear. */
const LOWEST_STRING = 4;
/** Frets and strings one hand holds two notes over. */
const WIDEST = 3;
const FARTHEST_STRINGS = 2;
/** Beats from one double stop to the next inside a change. */
const EVERY = 2;
/** What the target left out costs, and a string changed, beside a semitone of motion in each voice. */
const COSTS = { noTarget: 30, string: 1, standing: 4 } as const;

/** A moment at which one is struck. */
interface Struck {
  readonly stretch: Stretch;
  readonly start: Ticks;
  readonly end: Ticks;
  readonly pairs: readonly Pair[];
  readonly own: (pair: Pair) => number;
  readonly isTarget: boolean;
}

/** Pairs of notes inside the grips of the chords, led in by semitone. Source: docs/music-rules.md, Finding a line. */
export function findDoubleStops(wish: FindWish): FoundLines {
  const stretches = stretchesOf(wish);
  const landings = landingsOf(wish, stretches);
  const struck = stretches.flatMap((stretch): Struck[] => {
    const own = landings.filter(({ start }) => start >= stretch.from && start < stretch.end);
    const pairs = pairsIn(stretch);
    const moments = momentsIn(
      stretch,
      own.map(({ start }) => start)
    );
    return moments.map((start, i) => {
      const target = own.find((one) => one.start === start)?.cell ?? null;
      const holds = ({ low, high }: Pair) => [low, high].some(({ midi }) => midi === target?.midi);
      return {
        stretch,
        start,
        end: moments[i + 1] ?? stretch.end,
        pairs,
        own: (pair) => (target && !holds(pair) ? COSTS.noTarget : 0),
        isTarget: target !== null
      };
    });
  });
  const empty = struck.find(({ pairs }) => pairs.length === 0);
  if (empty) {
    const { index, symbol } = empty.stretch.change;
    const message = `No third or sixth of ${symbol} lies under one hand there; allow more of the neck.`;
    return { lines: [], noLine: { change: index, message } };
  }
  const { paths } = solvePaths({
    nodes: struck.map(({ pairs, own }) => pairs.map(own)),
    steps: struck
      .slice(1)
      .map(({ pairs }, i) =>
        stepTable(nth(struck, i).pairs.length, pairs.length, (a, b) =>
          motion(nth(nth(struck, i).pairs, a), nth(pairs, b))
        )
      ),
    close: null,
    k: wish.alternatives
  });
  return {
    lines: paths.map(({ cost, choice }) => {
      const pairs = choice.map((at, i) => nth(nth(struck, i).pairs, at));
      const notes = struck.flatMap((one, i) =>
        struckNotes(one, nth(pairs, i), pairs[i + 1], struck[i + 1], wish)
      );
      return { notes, cost, parts: {}, exact: true };
    })
  };
}

function momentsIn({ from, end }: Stretch, landings: readonly number[]): number[] {
  const count = Math.ceil((end - from) / (EVERY * TICKS));
  const regular = Array.from({ length: count }, (_, i) => from + i * EVERY * TICKS);
  return [...new Set([...regular, ...landings])].sort((a, b) => a - b);
}

function pairsIn({ pool, change: { chord } }: Stretch): Pair[] {
  const upper = pool.filter(({ kind, string }) => kind === 'chord' && string <= LOWEST_STRING);
  const all = pool.filter(({ kind }) => kind === 'chord');
  const intervals = chord.family === 'power' ? WITHOUT_THIRD : INTERVALS;
  const isGuide = ({ degree }: PoolCell) => degree === '3' || degree === 'b7';
  const pairsOf = (tones: readonly PoolCell[]) =>
    tones.flatMap((low) =>
      tones
        .filter((high) => {
          const interval = high.midi - low.midi;
          if (!intervals.has(interval) || high.string >= low.string) return false;
          if (interval === 6 && chord.family === 'dominant' && !(isGuide(low) && isGuide(high))) return false;
          const isHeld = low.fret === 0 || high.fret === 0 || Math.abs(low.fret - high.fret) <= WIDEST;
          return isHeld && low.string - high.string <= FARTHEST_STRINGS;
        })
        .map((high) => ({ low, high }))
    );
  const own = pairsOf(upper);
  // An area that is bound to lower strings has them there.
  return own.length > 0 ? own : pairsOf(all);
}

function motion(from: Pair, to: Pair): number {
  const semitones = Math.abs(to.low.midi - from.low.midi) + Math.abs(to.high.midi - from.high.midi);
  const strings = Math.abs(to.low.string - from.low.string) + Math.abs(to.high.string - from.high.string);
  return semitones + COSTS.string * strings + (semitones === 0 ? COSTS.standing : 0);
}

/** One double stop, and what leads into the next: both of its notes from a semitone below, or above. */
function struckNotes(
  { start, end, isTarget, stretch }: Struck,
  pair: Pair,
  next: Pair | undefined,
  following: Struck | undefined,
  wish: FindWish
): LineNote[] {
  const length = slotLength(wish);
  const lead =
    next && following?.start === end && end - start > TICKS ? leadingPair(stretch, pair, next) : null;
  const until = lead ? end - length : end;
  const both = ({ low, high }: Pair, at: Ticks, lasts: Ticks, purpose: 'target' | 'run' | 'approach') =>
    [low, high].map((cell) => written(cell, at, lasts, purpose));
  return [
    ...both(pair, start, until - start, isTarget ? 'target' : 'run'),
    ...(lead ? both(lead, until, length, 'approach') : [])
  ];
}

/** The next pair a semitone lower, or higher, on its own strings and within the area; null where it only repeats what sounds. */
function leadingPair({ pool }: Stretch, sounding: Pair, next: Pair): Pair | null {
  if (isSame(sounding, next)) return null;
  for (const step of [-1, 1]) {
    const at = (cell: PoolCell) =>
      pool.find(({ string, midi }) => string === cell.string && midi === cell.midi + step);
    const [low, high] = [at(next.low), at(next.high)];
    if (low && high && !isSame(sounding, { low, high })) return { low, high };
  }
  return null;
}

const isSame = (a: Pair, b: Pair) => a.low.midi === b.low.midi && a.high.midi === b.high.midi;
