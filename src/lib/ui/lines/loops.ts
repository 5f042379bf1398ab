/** What of a line is played round and round. */
import type { LoopWish } from '$lib/core/harmony/excerpt';

export type LoopId = 'whole' | 'bar' | 'seam';

export const LOOPS: readonly { readonly value: LoopId; readonly name: string; readonly hint: string }[] = [
  { value: 'whole', name: 'all of it', hint: 'The whole form' },
  { value: 'bar', name: 'this bar', hint: 'The bar of the change that is selected' },
  { value: 'seam', name: 'into the next', hint: 'The seam: this bar and the one after it' }
];

/** The loop round a bar of a form with so many bars. */
export function loopAt(id: LoopId, bar: number, bars: number): LoopWish {
  if (id === 'whole') return { kind: 'form' };
  return { kind: 'bars', from: bar, to: id === 'bar' ? bar : Math.min(bars, bar + 1) };
}
