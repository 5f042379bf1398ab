/** The rungs of the tempo ladder: what one step up or down is. */
import { boundedTempo } from '../ladder';

/** A rung in per cent where an item says none, and the least in beats a minute. */
export const RUNG_PER_CENT = 4;
const LEAST_RUNG = 2;

const rungAt = (tempo: number, perCent: number) => Math.max(LEAST_RUNG, Math.round((tempo * perCent) / 100));

/** A tempo so many rungs higher, or lower where they are negative; in beats a minute. */
export function stepped(tempo: number, rungs: number, perCent = RUNG_PER_CENT): number {
  let now = tempo;
  for (let i = 0; i < Math.abs(rungs); i++) now += Math.sign(rungs) * rungAt(now, perCent);
  return boundedTempo(now);
}

/** Rungs from one tempo up to another; 0 where it is reached. */
export function stepsUp(from: number, to: number, perCent = RUNG_PER_CENT): number {
  let rungs = 0;
  for (let now = from; now < to; rungs++) now += rungAt(now, perCent);
  return rungs;
}
