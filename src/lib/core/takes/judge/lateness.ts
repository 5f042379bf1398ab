/** How late each change is met, over the takes of a chart. */
import { sure } from '../../base/list';
import { group, mean, median } from 'd3-array';
import type { Meeting } from './landing';

/** A change of one take. */
export interface MetOnce {
  readonly change: number;
  readonly met: Meeting | null;
  /** Beats after the change; null where nothing was played. */
  readonly late: number | null;
}

export interface Lateness {
  readonly change: number;
  /** The mean over the times its target was played, in beats; below 0 it is early. */
  readonly late: number;
  /** Of those times the middle distance from the change, either way. */
  readonly apart: number;
  readonly times: number;
}

/** A target that came while it was still meant. */
const COMES: readonly (Meeting | null)[] = ['hit', 'late', 'early'];
/** A target pushed or held over by more than this came when it was meant to, in beats. */
const PUSHED = 0.7;

/** The changes by how late their targets come, the latest first. */
export function latenessByChange(landings: readonly MetOnce[]): Lateness[] {
  const played = landings.flatMap(({ change, met, late }) =>
    COMES.includes(met) && late !== null ? [{ change, late: late < -PUSHED ? 0 : late }] : []
  );
  return [...group(played, ({ change }) => change)]
    .map(([change, times]): Lateness => ({
      change,
      late: sure(
        mean(times, ({ late }) => late),
        'mean'
      ),
      apart: sure(
        median(times, ({ late }) => Math.abs(late)),
        'median'
      ),
      times: times.length
    }))
    .sort((a, b) => b.late - a.late || a.change - b.change);
}
