/** The ladder at the stand: what a part loops now and how fast, from the loops that were played in it. */
import { nth } from '../../base/list';
import type { Seconds } from '../../base/units';
import type { Bars } from '../log/model';
import type { Loop } from './loops';
import { newStretch, playLoop, tempoAfter, type Stretch } from './runs';
import type { Step } from './turn';

/** What is played now. */
export interface Now {
  /** Place of its step in the part. */
  readonly at: number;
  readonly bars: Bars | null;
  readonly tempo: number;
  /** The whole, or all that there is, was clean at its goal: the part is done before its time. */
  readonly isDone: boolean;
}

const isSame = (a: Bars | null, b: Bars | null) => a?.from === b?.from && a?.to === b?.to;
const DAY = 'today';

/** `loops`: those of the part that were marked, in their order; `seconds`: that it has run; `rung`: in per cent. */
export function nowIn(
  steps: readonly Step[],
  loops: readonly Loop[],
  seconds: Seconds,
  rung?: number
): Now | null {
  const stretches = steps.map((step) => playedIn(step, loops, rung));
  const isReached = (at: number) => (nth(stretches, at).days.at(-1)?.cleanAtGoal ?? 0) > 0;
  let until = 0;
  const found = steps.findIndex(({ minutes, bars }, i) => {
    until += minutes * 60;
    // A section that is where it is to be makes room for what comes after it.
    return seconds < until && !(bars && isReached(i));
  });
  const at = found < 0 ? steps.length - 1 : found;
  const step = steps[at];
  const stretch = stretches[at];
  if (!step || !stretch) return null;
  const { goal, base } = step;
  return {
    at,
    bars: step.bars ?? null,
    tempo: stretch.tempo ? tempoAfter(stretch, { goal, step: rung }, base) : step.tempo,
    isDone: isReached(at) && (step.bars === undefined || at === steps.length - 1)
  };
}

/** What was played of the stretch of a step, in this part and in the step before it that has the same one. */
function playedIn(step: Step, loops: readonly Loop[], rung?: number): Stretch {
  const { goal } = step;
  const bars = step.bars ?? null;
  const stretch = newStretch();
  for (const loop of loops) {
    if (isSame(loop.bars, bars)) playLoop(stretch, loop, DAY, { goal, step: rung });
  }
  return stretch;
}
