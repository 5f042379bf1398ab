/** How a band grows from round to round. Source: docs/music-rules.md, The band. */

export interface Arc {
  readonly id: string;
  /** As the player reads it. */
  readonly name: string;
  /** How much more or less than was asked for a round gives. */
  readonly at: (round: number) => number;
}

/** Rounds of a story, and of a wave. */
const STORY = 6;
const WAVE = 4;

export const ARCS: readonly Arc[] = [
  { id: 'steady', name: 'stays as it is', at: () => 0 },
  {
    id: 'build',
    name: `builds over ${STORY} rounds`,
    at: (round) => -0.3 + (0.7 * Math.min(round, STORY - 1)) / (STORY - 1)
  },
  { id: 'waves', name: 'rises and falls', at: (round) => -0.25 * Math.cos((2 * Math.PI * round) / WAVE) },
  {
    id: 'story',
    name: 'builds, then comes back',
    at: (round) => -0.3 + 0.7 * Math.sin((Math.PI * Math.min(round, STORY)) / STORY) ** 2
  }
];

/** The intensity of a round, 0 to 1; of an arc that is not known, as it is. */
export function intensityInArc(id: string, base: number, round: number): number {
  const arc = ARCS.find((one) => one.id === id);
  return Math.min(1, Math.max(0, base + (arc?.at(round) ?? 0)));
}
