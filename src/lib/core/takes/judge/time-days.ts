/** How a player lay in time, day by day. */
import { sure } from '../../base/list';
import { group, mean } from 'd3-array';

/** How one take lay in time, in seconds: behind the beat above 0, and the spread about that. */
export interface TimedTake {
  readonly day: string;
  readonly mean: number;
  readonly spread: number;
}

export interface TimeDay extends TimedTake {
  readonly takes: number;
}

/** The means of each day's takes, the days in order. */
export function timeByDay(takes: readonly TimedTake[]): TimeDay[] {
  return [...group(takes, ({ day }) => day)]
    .map(([day, own]): TimeDay => ({
      day,
      mean: sure(
        mean(own, (take) => take.mean),
        'mean'
      ),
      spread: sure(
        mean(own, (take) => take.spread),
        'mean'
      ),
      takes: own.length
    }))
    .sort((a, b) => (a.day < b.day ? -1 : 1));
}
