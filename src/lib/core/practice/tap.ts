/** A tempo tapped with the hand. */

import { nth } from '../base/list';

/** Milliseconds after which a tap begins anew: slower than any tempo. */
const PAUSE = 3200;
/** Taps that are heard: what came before has been corrected since. */
const HEARD = 8;

/** The taps that count after one more, in milliseconds. */
export const withTap = (taps: readonly number[], at: number): number[] =>
  at - (taps.at(-1) ?? at) > PAUSE ? [at] : [...taps, at].slice(-HEARD);

/** Beats a minute, whole; null before there are two taps. The middle interval counts, so that one slip does nothing. */
export function tappedTempo(taps: readonly number[]): number | null {
  const gaps = taps
    .slice(1)
    .map((at, i) => at - nth(taps, i))
    .sort((a, b) => a - b);
  const middle =
    gaps.length % 2
      ? gaps[(gaps.length - 1) / 2]
      : ((gaps[gaps.length / 2 - 1] ?? 0) + (gaps[gaps.length / 2] ?? 0)) / 2;
  return middle ? Math.round(60_000 / middle) : null;
}
