/**
 * A band that listens: how dense and loud the player is moves how much the band gives, from the next bar on, and leaves room or answers.
 * Source: docs/music-rules.md, The band.
 */

/** What was heard of the player in one bar. */
export interface HeardBar {
  readonly notes: number;
  readonly pulses: number;
  /** The loudest sample, 0 to 1. */
  readonly peak: number;
}

export interface Following {
  /** How much the band gives now, 0 to 1. */
  readonly intensity: number;
  /** From −1, where the player is silent and is answered, to 1, where they are busy and are left room. */
  readonly room: number;
  /** What the last bars asked for. */
  readonly wished: readonly number[];
  /** The loudest bar lately: an input may be turned up or down. */
  readonly loudest: number;
}

/** Notes in a pulse that are as dense as it gets. */
const DENSE = 2;
/** Bars over which the player is heard. */
const BARS = 2;
/** What a player gives by the first note, by density and by loudness. */
const FLOOR = 0.08;
const BY_DENSITY = 0.47;
const BY_LOUDNESS = 0.45;
/** The loudest bar fades a little with every bar; what is softer than this is no loudness to go by. */
const FADES = 0.985;
const SOFTEST = 0.05;

/** What the band has heard of a player when it begins: nothing. */
export const startFollowing = (intensity: number): Following => ({
  intensity,
  room: 0,
  wished: [],
  loudest: SOFTEST
});

/** @param base what is asked for where the player is silent */
export function afterBar({ wished, loudest }: Following, bar: HeardBar, base: number): Following {
  const now = Math.max(SOFTEST, bar.peak, loudest * FADES);
  const density = Math.min(1, bar.notes / Math.max(1, bar.pulses) / DENSE);
  const own = bar.notes === 0 ? base : FLOOR + BY_DENSITY * density + BY_LOUDNESS * (bar.peak / now);
  const last = [...wished, own].slice(-BARS);
  return {
    intensity: Math.min(1, last.reduce((sum, one) => sum + one, 0) / last.length),
    room: bar.notes === 0 ? -1 : 2 * density - 1,
    wished: last,
    loudest: now
  };
}
