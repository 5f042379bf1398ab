/** Where the band has the second half of a beat in a chart. */
import type { Sheet } from '../harmony/sheet';
import { feelOf } from './feel';
import { quarterTempo, swingAt } from './pulse';

/** By the chart's own feel at a tempo (its beats a minute), 0.5 for straight. */
export function chartSwing({ head, form }: Pick<Sheet, 'head' | 'form'>, tempo: number): number {
  const [bar] = form.bars;
  return bar ? swingAt(feelOf(head.feel, head.meter).swing, quarterTempo(tempo, bar)) : 0.5;
}
