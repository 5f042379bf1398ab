/**
 * Runs: what the ladder counts by (docs/music-rules.md, *Practice*). A run is whole loops of one stretch at one tempo until at least 16
 * bars are played; it is clean with one stumble at most in each full 16 bars.
 */
import { sure } from '../../base/list';
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

/** What a day's playing of one stretch came to. */
export interface PlayedDay {
  day: string;
  /** The fastest clean run, and the fastest loop without a stumble. */
  best: number | null;
  spotless: number | null;
  slowest: number;
  /** Runs at the goal, by how they went. */
  cleanAtGoal: number;
  uncleanAtGoal: number;
}

/** One stretch of an item as its loops have been played: the whole, a section, two bars. Flat, for there are many. */
export interface Stretch {
  /** The days played last, the latest at the end. */
  readonly days: PlayedDay[];
  /** The run that is under way, and the tempo of the latest loop; 0 where there is none. */
  tempo: number;
  bars: number;
  stumbles: number;
  isSpotless: boolean;
  /** Whether the last finished run was clean, and how many before it, at its tempo, were not. */
  isClean: boolean;
  unclean: number;
  /** Runs in a row without a stumble, over the days. */
  streak: number;
}

/** A stretch that was not played yet. */
export const newStretch = (): Stretch => ({
  days: [],
  tempo: 0,
  bars: 0,
  stumbles: 0,
  isSpotless: false,
  isClean: false,
  unclean: 0,
  streak: 0
});

/** The ladder of an item: its goal and rung. */
export interface Rungs {
  readonly goal: number;
  readonly step?: number | undefined;
}

/** Takes a loop that was played on a day. Days come in their order. */
export function playLoop(
  stretch: Stretch,
  { tempo, length, stumbles }: Pick<Loop, 'tempo' | 'length' | 'stumbles'>,
  day: string,
  { goal }: Rungs
): void {
  const today = dayOf(stretch, day, tempo);
  if (tempo < today.slowest) today.slowest = tempo;
  if (stumbles === 0 && (today.spotless === null || tempo > today.spotless)) today.spotless = tempo;
  if (tempo !== stretch.tempo) {
    stretch.bars = stretch.stumbles = stretch.unclean = 0;
    stretch.tempo = tempo;
  }
  stretch.isSpotless = stumbles === 0;
  stretch.bars += length;
  stretch.stumbles += stumbles;
  if (stretch.bars >= RUN_BARS) endRun(stretch, today, goal);
}

const newDay = (): PlayedDay => ({
  day: '',
  best: null,
  spotless: null,
  slowest: 0,
  cleanAtGoal: 0,
  uncleanAtGoal: 0
});

function dayOf(stretch: Stretch, day: string, tempo: number): PlayedDay {
  const { days } = stretch;
  const last = days.at(-1);
  if (last?.day === day) return last;
  // The day that is dropped is written anew: a long log makes many.
  const today = days.length < KEPT_DAYS ? newDay() : sure(days.shift(), 'days');
  today.day = day;
  today.best = today.spotless = null;
  today.slowest = tempo;
  today.cleanAtGoal = today.uncleanAtGoal = 0;
  days.push(today);
  stretch.bars = stretch.stumbles = stretch.unclean = 0;
  return today;
}

function endRun(stretch: Stretch, today: PlayedDay, goal: number): void {
  const { tempo, bars, stumbles } = stretch;
  const isClean = stumbles <= Math.floor(bars / RUN_BARS);
  stretch.isClean = isClean;
  stretch.unclean = isClean ? 0 : stretch.unclean + 1;
  stretch.streak = stumbles === 0 ? stretch.streak + 1 : 0;
  stretch.bars = stretch.stumbles = 0;
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
  const { tempo, bars, isSpotless, isClean, unclean, streak } = stretch;
  if (tempo === 0) return goal;
  // Loop by loop without a stumble it climbs back to where the day before left off.
  const isUnder = base !== null && tempo < base && isSpotless;
  const climbed = isUnder ? Math.min(base, stepped(tempo, CLIMBS_BACK, step)) : 0;
  if (bars > 0) return Math.min(goal, climbed || tempo);
  if (isClean) {
    const up = stepped(tempo, streak >= SPOTLESS.runs ? SPOTLESS.rungs : 1, step);
    return Math.min(Math.max(goal, tempo), Math.max(up, climbed));
  }
  return unclean >= UNCLEAN_RUNS ? stepped(tempo, -1, step) : tempo;
}
