/**
 * How much a band gives, 0 to 1: half of it is its plain self. Below it is quieter and plays less, above it is louder, fills more and sits
 * higher. Source: docs/music-rules.md, The band.
 */

/** What a band plays with where nothing is asked for. */
export const PLAIN_INTENSITY = 0.5;
/** Below this a walking bass plays halves, and the drums take brushes. */
const QUIET = 0.3;
/** From here on hats become the ride, and grips begin an inversion higher. */
const FULL = 0.75;

/** Whether the band plays as quietly as it can. */
export const isQuiet = (intensity: number): boolean => intensity < QUIET;
/** Whether the band plays as fully as it can. */
export const isFull = (intensity: number): boolean => intensity >= FULL;

/** How much louder or softer everything is struck than at half. */
export const loudnessAt = (intensity: number): number => 0.68 + 0.64 * intensity;

/** A chance that falls as the band gives more: three times as much at rest, half of it at full. */
export const rarerAt = (chance: number, intensity: number): number =>
  chance * (intensity < PLAIN_INTENSITY ? 1 + 4 * (PLAIN_INTENSITY - intensity) : 1.5 - intensity);

/** A chance that rises with it: half of it at rest, half more at full. */
export const likelierAt = (chance: number, intensity: number): number =>
  Math.min(1, chance * (PLAIN_INTENSITY + intensity));

/** The intensity of a round: of a list each round takes its own, and the last holds. */
export function intensityOf(asked: number | readonly number[] | undefined, round: number): number {
  if (asked === undefined) return PLAIN_INTENSITY;
  if (typeof asked === 'number') return asked;
  return asked[Math.min(round, asked.length - 1)] ?? PLAIN_INTENSITY;
}
