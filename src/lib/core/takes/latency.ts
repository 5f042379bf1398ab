/** How late an input comes in, from notes that were played with clicks. */
import { sure } from '../base/list';
import type { Seconds } from '../base/units';
import { median, quantile } from 'd3-array';

export interface Latency {
  /** Seconds from a click to its answer, in the middle of all. */
  readonly seconds: Seconds;
  /** Half of the answers lie within this many seconds of one another. */
  readonly spread: number;
  /** Clicks that were answered. */
  readonly answered: number;
}

/** Answers further from their click are none, in seconds. */
const FURTHEST = 0.35;
/** The first clicks are for finding the time. */
const FOUND_AFTER = 2;
/** Fewer answers tell nothing. */
const LEAST = 4;
/** Answers that lie further apart are no time. */
const WIDEST = 0.08;

/**
 * The latency of an input; null where too few clicks were answered, or the answers lie all over.
 * @param clicks seconds at which clicks were handed to the loudspeaker
 * @param onsets seconds at which something was heard, on the same clock
 */
export function latencyFrom(clicks: readonly number[], onsets: readonly number[]): Latency | null {
  const answers = clicks.slice(FOUND_AFTER).flatMap((click) => {
    const near = onsets.map((onset) => onset - click).filter((late) => Math.abs(late) <= FURTHEST);
    return near.length ? [near.reduce((a, b) => (Math.abs(b) < Math.abs(a) ? b : a))] : [];
  });
  if (answers.length < LEAST) return null;
  const spread = sure(quantile(answers, 0.75), 'quantile') - sure(quantile(answers, 0.25), 'quantile');
  return spread > WIDEST
    ? null
    : { seconds: sure(median(answers), 'median'), spread, answered: answers.length };
}
