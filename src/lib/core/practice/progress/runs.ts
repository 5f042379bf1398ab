/**
 * Runs: what the ladder counts by (9-practice, *The ladder*). A run is whole loops of one stretch at one tempo until at least 16
 * bars are played; it is clean with one stumble at most in each full 16 bars.
 */
import { stepped } from './rungs';
import type { Loop } from './loops';

/** Bars that make a run, and for each of which one stumble is forgiven. */
export const RUN_BARS = 16;
/** Runs in a row that go wrong before the tempo goes down. */
const UNCLEAN_RUNS = 2;
/** Runs in a row without a stumble after which the tempo goes up by more than one rung. */
const SPOTLESS = { runs: 3, rungs: 2 };
/** Rungs that a loop without a stumble climbs back, as long as the tempo lies under what was clean before. */
const CLIMBS_BACK = 2;
/** Days played that a base is read from. */
const BASE_DAYS = 3;
/** Days that are kept: those and the latest. */
const KEPT_DAYS = BASE_DAYS + 1;

export interface Run {
  readonly tempo: number;
  readonly isClean: boolean;
}

/** What a day's playing of one stretch came to. */
export interface PlayedDay {
  readonly day: string;
  /** The fastest clean run, and the fastest loop without a stumble. */
  best: number | null;
  spotless: number | null;
  slowest: number;
  /** Runs at the goal, by how they went. */
  cleanAtGoal: number;
  uncleanAtGoal: number;
}

/** One stretch of an item as its loops have been played: the whole, a section, two bars. */
export interface Stretch {
  /** The days played last, the latest at the end. */
  readonly days: PlayedDay[];
  /** Finished runs of the latest day. */
  runs: Run[];
  /** The run that is under way. */
  run: { tempo: number; bars: number; stumbles: number } | null;
  /** Runs in a row without a stumble, over the days. */
  streak: number;
  /** The tempo of the latest loop, and whether it was without a stumble. */
  last: { tempo: number; isSpotless: boolean } | null;
}

export const newStretch = (): Stretch => ({
  days: [],
  runs: [],
  run: null,
  streak: 0,
  last: null
});

/** The ladder of an item: its goal and rung. */
export interface Rungs {
  readonly goal: number;
  readonly step?: number | undefined;
}

/** Takes a loop that was played on a day. Days come in their order. */
export function playLoop(stretch: Stretch, loop: Loop, day: string, { goal }: Rungs): void {
  const { tempo, length, stumbles } = loop;
  let today = stretch.days.at(-1);
  if (today?.day !== day) {
    today = { day, best: null, spotless: null, slowest: tempo, cleanAtGoal: 0, uncleanAtGoal: 0 };
    stretch.days.push(today);
    if (stretch.days.length > KEPT_DAYS) stretch.days.shift();
    stretch.runs = [];
    stretch.run = null;
  }
  today.slowest = Math.min(today.slowest, tempo);
  stretch.last = { tempo, isSpotless: stumbles === 0 };
  if (stumbles === 0 && (today.spotless === null || tempo > today.spotless)) today.spotless = tempo;
  const run = stretch.run?.tempo === tempo ? stretch.run : { tempo, bars: 0, stumbles: 0 };
  run.bars += length;
  run.stumbles += stumbles;
  stretch.run = run;
  if (run.bars < RUN_BARS) return;
  stretch.run = null;
  const isClean = run.stumbles <= Math.floor(run.bars / RUN_BARS);
  stretch.runs.push({ tempo, isClean });
  stretch.streak = run.stumbles === 0 ? stretch.streak + 1 : 0;
  if (isClean && (today.best === null || tempo > today.best)) today.best = tempo;
  if (tempo < goal) return;
  if (isClean) today.cleanAtGoal += 1;
  else today.uncleanAtGoal += 1;
}

/**
 * The base: the best clean run of the last three days played, a rung less for each played day since, or the fastest loop
 * without a stumble of the last day where that is more (or else a part too short for a whole run would never gain). Where
 * nothing was clean: under the slowest that was tried in those days, a rung for each. Null where nothing was played.
 */
export function baseOf({ days }: Pick<Stretch, 'days'>, step?: number): number | null {
  return baseUpTo(days, days.length, step);
}

/** The base that the latest day began from. */
export function baseBefore({ days }: Pick<Stretch, 'days'>, step?: number): number | null {
  return baseUpTo(days, days.length - 1, step);
}

function baseUpTo(days: readonly PlayedDay[], end: number, step?: number): number | null {
  const last = days[end - 1];
  if (!last) return null;
  const lately = days.slice(Math.max(0, end - BASE_DAYS), end);
  let most = last.spotless;
  lately.forEach(({ best }, at) => {
    if (best !== null) most = Math.max(most ?? 0, stepped(best, at + 1 - lately.length, step));
  });
  return most ?? stepped(Math.min(...lately.map(({ slowest }) => slowest)), -lately.length, step);
}

/** The tempo of the next loop, once a day's playing has begun. `base`: what was clean before that day. */
export function tempoAfter(
  stretch: Stretch,
  { goal, step }: Rungs,
  base = baseBefore(stretch, step)
): number {
  const { runs, run, last } = stretch;
  if (!last) return goal;
  const { tempo } = last;
  // Loop by loop without a stumble it climbs back to where the day before left off.
  const isUnder = base !== null && tempo < base && last.isSpotless;
  const climbed = isUnder ? Math.min(base, stepped(tempo, CLIMBS_BACK, step)) : null;
  if (run) return Math.min(goal, climbed ?? tempo);
  const { isClean } = runs.at(-1)!;
  if (isClean) {
    const isSpotless = stretch.streak >= SPOTLESS.runs;
    const up = stepped(tempo, isSpotless ? SPOTLESS.rungs : 1, step);
    return Math.min(Math.max(goal, tempo), Math.max(up, climbed ?? 0));
  }
  const since = runs.findLastIndex((one) => one.isClean || one.tempo !== tempo);
  const unclean = runs.length - 1 - since;
  return unclean % UNCLEAN_RUNS === 0 ? stepped(tempo, -1, step) : tempo;
}
