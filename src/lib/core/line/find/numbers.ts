/** Cells by the number they have above the root of their change. */
import { nth } from '../../base/list';
import type { Midi } from '../../base/units';
import type { Measure } from '../move';

/** Whether a cell is one of some numbers above a root; a 9 is a 2. */
export function byNumber(numbers: readonly number[], { root, numbers: stands }: Measure) {
  const wanted = new Set(numbers.map((number) => (root + nth(stands, ((number - 1) % 7) + 1)) % 12));
  return ({ midi }: { readonly midi: Midi }) => wanted.has(midi % 12);
}
