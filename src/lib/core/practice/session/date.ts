/** For a date: how ready each tune of a set list is, how the minutes are shared out, and whether a goal is in reach. */
import { daysBetween } from '../log/day';
import type { PracticeItem } from '../log/model';
import type { Progress } from '../log/progress';
import { stepsUp } from '../log/tempo';

/** Tempo steps that a day of practice gains at most: what is held climbs by two days for each rung that is tried. */
export const STEPS_A_DAY = 1;
/** What a tune needs at least of the minutes, held or not, so that it stays. */
const LEAST_NEED = 0.1;

export interface Readiness {
  /** Share of the way, 0 to 1: each item by how far its tempo is held. */
  readonly share: number;
  readonly held: number;
  readonly items: number;
  /** Tempo steps of the item that is farthest from its goal. */
  readonly steps: number;
}

/** How ready a tune is. `goal`: beats a minute it is to be played at on the day; its items' own goals where there is none. */
export function readinessOf(
  items: readonly PracticeItem[],
  progress: ReadonlyMap<string, Progress>,
  goal: number | null
): Readiness {
  const each = items.map((item) => {
    const { held, clean } = progress.get(item.id)!;
    const top = goal === null ? item.tempo.goal : Math.min(goal, item.tempo.goal);
    const from = held ?? clean ?? item.tempo.start;
    const whole = Math.max(1, stepsUp(item.tempo.start, top, item.tempo.step));
    const left = stepsUp(from, top, item.tempo.step);
    // Never played: nothing of the way, though the start be near.
    const share = progress.get(item.id)!.lastDay === null ? 0 : 1 - Math.min(1, left / whole);
    return { isHeld: held !== null && held >= top, share, left: share === 0 ? Math.max(1, left) : left };
  });
  return {
    share: each.length ? each.reduce((sum, { share }) => sum + share, 0) / each.length : 0,
    held: each.filter(({ isHeld }) => isHeld).length,
    items: each.length,
    steps: Math.max(0, ...each.map(({ left }) => left))
  };
}

export interface Pace {
  readonly days: number;
  /** Steps a day that are needed. */
  readonly perDay: number;
  readonly isInReach: boolean;
}

/** The pace needed to make so many steps by a day; past days are no days. */
export function paceTo(steps: number, today: string, day: string): Pace {
  const days = Math.max(0, daysBetween(today, day));
  const perDay = days ? steps / days : steps ? Infinity : 0;
  return { days, perDay, isInReach: steps <= days * STEPS_A_DAY };
}

/** Whole minutes for each tune, by need; together all of them. Ties go to the one that stands first. */
export function minutesByNeed(
  needs: readonly Pick<Readiness, 'share'>[],
  minutes: number
): readonly number[] {
  const weights = needs.map(({ share }) => LEAST_NEED + (1 - share));
  const whole = weights.reduce((sum, weight) => sum + weight, 0);
  if (whole === 0) return [];
  const exact = weights.map((weight) => (minutes * weight) / whole);
  const shares = exact.map(Math.floor);
  const left = minutes - shares.reduce((sum, share) => sum + share, 0);
  const largest = exact
    .map((value, at) => ({ at, rest: value - Math.floor(value) }))
    .sort((a, b) => b.rest - a.rest || a.at - b.at);
  for (const { at } of largest.slice(0, left)) shares[at]! += 1;
  return shares;
}
