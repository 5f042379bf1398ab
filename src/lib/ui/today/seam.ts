/** To the stand, with a change and what leads into it. */
import { goto } from '$app/navigation';
import { askFor } from '$lib/state/practice/assigned';

export async function drillSeam(chart: string, change: number, symbol: string): Promise<void> {
  askFor(chart, {
    item: null,
    name: `The seam at ${symbol}`,
    what: 'targets',
    // The change before it leads into it.
    over: change > 0 ? { kind: 'pair', change: change - 1 } : { kind: 'change', change },
    area: null,
    key: null,
    start: null,
    steps: []
  });
  await goto(`/charts/${chart}?view=rehearse`);
}
