/** The sections of an unrolled form as bars, counted from 1, both in. */
import { nth } from '../base/list';
import type { Form } from './unroll';

/** One after the other; a form without labels is one section. */
export function sectionsOf({
  bars
}: Pick<Form, 'bars'>): readonly { readonly from: number; readonly to: number }[] {
  const starts = bars.filter(({ section }, i) => i === 0 || section !== nth(bars, i - 1).section);
  return starts.map(({ number }, i) => ({
    from: number,
    to: (starts[i + 1]?.number ?? bars.length + 1) - 1
  }));
}
