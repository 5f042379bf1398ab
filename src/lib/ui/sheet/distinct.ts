/** The different moments of a chart: what a page tells once, with all the bars it stands in. */
import type { Workspace } from '$lib/state/chart/workspace.svelte';

export interface DistinctMoment {
  /** The first change of its kind. */
  readonly index: number;
  /** Bars in which it begins, in order, each once. */
  readonly bars: readonly number[];
}

/** Changes with the same chord, choice, hand and target are one; where nothing sounds there is none. */
export function distinctMoments(workspace: Workspace): DistinctMoment[] {
  const found = new Map<string, { index: number; bars: number[] }>();
  for (const { index, bar, symbol, chord } of workspace.changes) {
    if (!chord) continue;
    const target = workspace.paths.targets.get(index)?.cell;
    const key = [
      symbol,
      workspace.chosen[index]?.name,
      workspace.hands[index],
      target?.string,
      target?.fret
    ].join();
    const known = found.get(key);
    if (!known) found.set(key, { index, bars: [bar] });
    else if (known.bars.at(-1) !== bar) known.bars.push(bar);
  }
  return [...found.values()];
}

/** "bar 3", "bars 1, 5 to 8": bars as a page has room for. */
export function barsText(bars: readonly number[], most = 6): string {
  const runs: [number, number][] = [];
  for (const bar of bars) {
    const last = runs.at(-1);
    if (last && bar === last[1] + 1) last[1] = bar;
    else runs.push([bar, bar]);
  }
  const told = runs.slice(0, most).map(([from, to]) => {
    if (from === to) return `${from}`;
    return to === from + 1 ? `${from}, ${to}` : `${from}–${to}`;
  });
  return `${bars.length === 1 ? 'bar' : 'bars'} ${told.join(', ')}${runs.length > most ? ' …' : ''}`;
}
