/** What is wrong in the bars of a chart, where it is shown bar by bar. */
import type { ChartProblem } from '../model';
import type { CellPlaces } from '../read';
import type { WrittenBar } from './bars';

/** The column at which a written bar begins in its line, from 1; undefined for one without a cell. */
const columnOf = ({ line, at }: WrittenBar, places: CellPlaces): number | undefined =>
  places.get(line)?.[at]?.[0]?.column;

/** What is wrong in each bar, by its index; what has no place, or lies before the first bar, is left out. */
export function problemsByBar(
  bars: readonly WrittenBar[],
  problems: readonly ChartProblem[],
  places: CellPlaces
): ReadonlyMap<number, readonly ChartProblem[]> {
  const all = new Map<number, ChartProblem[]>();
  for (const problem of problems) {
    const { place } = problem;
    if (!place) continue;
    const begins = (bar: WrittenBar) => bar.at === 0 || (columnOf(bar, places) ?? Infinity) <= place.column;
    const bar = bars.findLast((one) => one.line === place.line - 1 && begins(one));
    if (bar) all.set(bar.index, [...(all.get(bar.index) ?? []), problem]);
  }
  return all;
}
