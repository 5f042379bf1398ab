/** Bars as they are felt: their pulses in ticks, and the changes that fall into them. */
import { firstOf, nth } from '../../base/list';
import type { Ticks } from '../../base/units';
import type { Change, PlayedBar } from '../../chart/unroll';
import { pulsesOf } from '../../chart/pulses';
import { ticksOf } from '../model';

export interface GridPulse {
  readonly start: Ticks;
  readonly length: Ticks;
  /** It divides into three, as a dotted beat does. */
  readonly isTriple: boolean;
}

export interface GridBar {
  readonly start: Ticks;
  readonly end: Ticks;
  readonly pulses: readonly GridPulse[];
}

export interface Grid {
  readonly bars: readonly GridBar[];
  /** Starts of bars, ascending. */
  readonly from: number;
  readonly end: Ticks;
}

/** The bars and pulses of a form, in ticks. */
export function gridOf(bars: readonly PlayedBar[]): Grid {
  const all = bars.map((bar): GridBar => {
    const pulses = pulsesOf(bar).map(({ start, beats, isTriple }): GridPulse => {
      const from = ticksOf(start);
      return { start: from, length: ticksOf(start + beats) - from, isTriple };
    });
    return { start: ticksOf(bar.start), end: ticksOf(bar.start + bar.beats), pulses };
  });
  return { bars: all, from: all[0]?.start ?? 0, end: all.at(-1)?.end ?? 0 };
}

/** The bar at a time; the first one for what comes before it. */
export function barAt({ bars }: Grid, ticks: Ticks): number {
  let [low, high] = [0, bars.length - 1];
  while (low < high) {
    const middle = (low + high + 1) >> 1;
    if (nth(bars, middle).start <= ticks) low = middle;
    else high = middle - 1;
  }
  return low;
}

/** The pulse at a time. Before the first bar pulses go on as in the first one. */
export function pulseAt(grid: Grid, ticks: Ticks): GridPulse {
  const { pulses, start } = nth(grid.bars, barAt(grid, ticks));
  if (ticks < start) {
    const { length, isTriple } = firstOf(pulses);
    return { start: start - Math.ceil((start - ticks) / length) * length, length, isTriple };
  }
  return pulses.findLast((pulse) => pulse.start <= ticks) ?? firstOf(pulses);
}

/** Half a pulse; a sixteenth of a quarter in finely divided music, an eighth where three make a pulse. */
export function pushAt(grid: Grid, ticks: Ticks, isFine: boolean): number {
  const { length, isTriple } = pulseAt(grid, ticks);
  if (isTriple) return length / 3;
  return isFine ? length / 4 : length / 2;
}

/** Changes with a chord, in ticks. */
export interface GridChange {
  readonly change: number;
  readonly start: Ticks;
  readonly end: Ticks;
}

/** When changes sound, in ticks. */
export function changesOf(changes: readonly Change[]): GridChange[] {
  return changes.map(({ index, start, beats }) => ({
    change: index,
    start: ticksOf(start),
    end: ticksOf(start + beats)
  }));
}
