/** Days from left to right, as the pictures of practice have them. */
import { extent } from 'd3-array';
import { scaleUtc } from 'd3-scale';
import { shortDay } from './days';

export interface DayAxis {
  /** x of a day, in pixels. */
  readonly x: (day: string) => number;
  readonly ticks: readonly { readonly x: number; readonly words: string }[];
}

/** Days marked at most, about. */
const TICKS = 8;
const DAY = 86_400_000;
const noon = (day: string) => new Date(`${day}T12:00:00Z`);

/** The days from the first to the last one between two edges; one day by itself stands in the middle. */
export function dayAxis(days: readonly string[], [left, right]: readonly [number, number]): DayAxis {
  const [first = 0, last = 0] = extent(days, (day) => +noon(day));
  const ends = first < last ? [first, last] : [first - DAY, last + DAY];
  const scale = scaleUtc(ends, [left, right]);
  return {
    x: (day) => scale(noon(day)),
    ticks: scale
      .ticks(TICKS)
      .map((tick) => ({ x: scale(tick), words: shortDay(tick.toISOString().slice(0, 10)) }))
  };
}
