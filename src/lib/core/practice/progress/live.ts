/** The ladder at the stand: what a part loops now and how fast, from the loops that were played in it. */
import type { Bars } from '../log/model';
import type { Loop } from './loops';
import { newStretch, playLoop, tempoAfter } from './runs';
import type { Step } from './turn';

/** What is played now. */
export interface Now {
  /** Place of its step in the part. */
  readonly at: number;
  readonly bars: Bars | null;
  readonly tempo: number;
  /** The last step was clean at its goal: the part is done before its time. */
  readonly isDone: boolean;
}

const isSame = (a: Bars | null, b: Bars | null) => a?.from === b?.from && a?.to === b?.to;
const DAY = 'today';

/** `loops`: those of the part that were marked, in their order; `seconds`: that it has run; `rung`: in per cent. */
export function nowIn(
  steps: readonly Step[],
  loops: readonly Loop[],
  seconds: number,
  rung?: number
): Now | null {
  let until = 0;
  const found = steps.findIndex(({ minutes }) => seconds < (until += minutes * 60));
  const at = found < 0 ? steps.length - 1 : found;
  const step = steps[at];
  if (!step) return null;
  const bars = step.bars ?? null;
  const { goal, base } = step;
  const way = { goal, step: rung };
  const stretch = newStretch();
  for (const loop of loops) if (isSame(loop.bars, bars)) playLoop(stretch, loop, DAY, way);
  const isReached = (stretch.days.at(-1)?.cleanAtGoal ?? 0) > 0;
  return {
    at,
    bars,
    tempo: stretch.tempo ? tempoAfter(stretch, way, base) : step.tempo,
    isDone: isReached && at === steps.findLastIndex((one) => isSame(one.bars ?? null, bars))
  };
}
