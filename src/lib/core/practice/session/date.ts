/** For a date: how a set list drives the days before it, and how far each of its tunes will be by then. */
import { daysBetween } from '../log/day';
import type { Standing } from '../progress/fold';
import { settled } from '../progress/fold';
import { baseOf } from '../progress/runs';
import { stepped, stepsUp } from '../progress/rungs';

/** A set list as the plan takes it. */
export interface SetList {
  readonly day: string;
  readonly charts: readonly SetTune[];
}
export interface SetTune {
  readonly chart: string;
  /** Beats a minute it is to be played at; as the form says where there is none. */
  readonly tempo?: number | null | undefined;
  readonly key?: string | null | undefined;
}

/** How a date drives the days before it. */
export const DATE = {
  /** Days from which it does, and those in which every tune is played through daily. */
  days: 30,
  lastDays: 7,
  /** Days without its form after which a tune is played through. */
  formEvery: 3,
  /** Share of the minutes that forms take at most. */
  forms: 0.6,
  weight: 2,
  others: 0.25
} as const;

/** Days to a date that drives this one; null where none does. */
export function daysTo(set: SetList | undefined, day: string): number | null {
  if (!set || set.charts.length === 0) return null;
  const days = daysBetween(day, set.day);
  return days >= 0 && days <= DATE.days ? days : null;
}

/** The tempo that a tune will have by a date: beats a minute. */
export interface Forecast {
  readonly low: number;
  readonly middle: number;
  readonly high: number;
}

/** A forecast with what it is made of, for who wants to know what it would take. */
export interface Outlook extends Forecast {
  readonly goal: number;
  /** What is clean now; null where the form was never clean. */
  readonly now: number | null;
  /** Rungs that are missing, and rungs that were gained in a week of late; null where nothing was measured. */
  readonly rungs: number;
  readonly pace: number | null;
}

/** Days of play that a pace is measured from. */
const MEASURED = 21;
/** Shares of the measured pace that are expected: it slows towards the goal, and days are missed. */
const PACE = { low: 0.15, middle: 0.55, high: 1.1 };
/** Rungs that a day's form is off the last ones. */
const OFF = { low: -2, high: 1 };
/** Rungs a day where nothing was measured yet. */
const UNMEASURED = { low: 0, middle: 0.3, high: 1 };

const WEEK = 7;

/** Where the form of a tune will be on a day, from how fast it has become lately. `goal`: that of the date. */
export function forecast(standing: Standing, today: string, day: string, goal: number): Forecast {
  const { low, middle, high } = outlook(standing, today, day, goal);
  return { low, middle, high };
}

/** The tempo that an item will have by a day, from its pace: low, middle, high. Source: docs/music-rules.md, Practice. */
export function outlook(standing: Standing, today: string, day: string, goal: number): Outlook {
  const { item, whole } = standing;
  const { start, step } = item.tempo;
  const base = baseOf(whole, step);
  const pace = paceOf(standing, today);
  return {
    ...interval(standing, Math.max(0, daysBetween(today, day)), goal, pace),
    goal,
    now: base,
    rungs: stepsUp(base ?? start, goal, step),
    pace: pace === null ? null : pace * WEEK
  };
}

/** Rungs a day that the fastest clean run has gained lately; null where one day alone tells nothing. */
function paceOf({ history, item }: Standing, today: string): number | null {
  const lately = history.filter((one) => daysBetween(one.day, today) <= MEASURED);
  const [first, last] = [lately[0], lately.at(-1)];
  if (!first || !last || lately.length < 2) return null;
  const gained = Math.max(0, stepsUp(first.best, last.best, item.tempo.step));
  return gained / Math.max(1, daysBetween(first.day, today));
}

function interval(standing: Standing, days: number, goal: number, measured: number | null): Forecast {
  const { item, whole } = standing;
  const { start, step } = item.tempo;
  const base = baseOf(whole, step);
  const at = (rungs: number) => Math.min(goal, stepped(base ?? start, Math.round(rungs), step));
  if (base === null) {
    return {
      low: at(UNMEASURED.low * days),
      middle: at(UNMEASURED.middle * days),
      high: at(UNMEASURED.high * days)
    };
  }
  const pace = measured ?? UNMEASURED.middle;
  const isSure = settled(standing).held.isHeld && base >= goal;
  return {
    low: isSure ? at(0) : at(PACE.low * pace * days + OFF.low),
    middle: at(PACE.middle * pace * days),
    high: at(PACE.high * pace * days + OFF.high)
  };
}
