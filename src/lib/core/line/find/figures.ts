/** Figures: cells that are carried through the changes, as the numbers of the tones they go through. */

import type { PitchClass } from '../../base/units';

/** A number above the root of the change, or a step next to the tone that follows. */
export type FigureTone = number | 'above' | 'below';

export interface Figure {
  readonly id: string;
  readonly name: string;
  /** One after another; started again as long as there is time. */
  readonly tones: readonly FigureTone[];
  /** In triplets, where they are others: what is to fall on a beat does so there too. */
  readonly inTriplets?: readonly FigureTone[];
}

/** A 9 is a 2 an octave up; the line finds the octave. */
export const FIGURES: readonly Figure[] = [
  { id: '1 2 3 5', name: '1 2 3 5', tones: [1, 2, 3, 5] },
  { id: '3 5 7 9', name: '3 5 7 9', tones: [3, 5, 7, 9] },
  { id: '5 down, up to 7', name: 'from the 5 down and up to the 7', tones: [5, 3, 2, 1, 3, 5, 7] },
  { id: 'up to the 9', name: 'up to the 9', tones: [1, 3, 5, 7, 9] },
  {
    id: 'fours',
    name: 'four notes from each tone in turn',
    tones: [1, 2, 3, 4, 2, 3, 4, 5, 3, 4, 5, 6, 4, 5, 6, 7]
  },
  {
    id: 'enclosures',
    name: 'an enclosure on each chord tone',
    // Each goal falls on a beat.
    tones: [1, 3, 'above', 'below', 3, 5, 'above', 'below', 5, 7, 'above', 'below', 7, 5, 'above', 'below'],
    inTriplets: [1, 'above', 'below', 3, 'above', 'below', 5, 'above', 'below', 7, 'above', 'below']
  },
  { id: '1 3 5 7', name: '1 3 5 7 up, the scale down', tones: [1, 3, 5, 7, 6, 5, 4, 3] },
  {
    id: 'chromatic below',
    name: 'a semitone below each chord tone',
    tones: [1, 'below', 3, 'below', 5, 'below', 7, 'below']
  }
];

/** The figure of an id. */
export function figureOf(id: string): Figure | undefined {
  return FIGURES.find((figure) => figure.id === id);
}

/** The tones of a figure that fill a change at so many notes a beat. */
export const tonesIn = ({ tones, inTriplets }: Figure, perBeat: number): readonly FigureTone[] =>
  perBeat === 3 ? (inTriplets ?? tones) : tones;

/** The chord degree a figure begins on, which is what its targets are. */
export function firstDegree({ tones }: Figure): '1' | '3' | '5' | '7' {
  const [first] = tones;
  return first === 3 ? '3' : first === 5 ? '5' : first === 7 ? '7' : '1';
}

const OCTAVE = 12;
/** Numbers of an octave. */
const OCTAVE_STEPS = 7;
const upTo = (from: number, to: number) => (((to - from) % OCTAVE) + OCTAVE) % OCTAVE;

/**
 * The steps into each tone of a figure that keep its contour, in semitones: every tone is the nearest one the way the numbers go; what lies
 * round a goal lies round the one that comes. Null into its first tone, which may lie in any octave.
 * @param pcOf the pitch class of a number; a 9 is a 2
 * @param isHome whether a pitch class is played over the chord
 */
export function stepsOf(
  tones: readonly FigureTone[],
  pcOf: (number: number) => number,
  isHome: (pc: PitchClass) => boolean
): readonly (readonly number[] | null)[] {
  const numberAfter = (at: number) => tones.slice(at).find((tone) => typeof tone === 'number');
  let last = typeof tones[0] === 'number' ? tones[0] : 1;
  return tones.map((tone, at): readonly number[] | null => {
    const before = tones[at - 1];
    if (at === 0) return null;
    if (before === 'below') {
      if (typeof tone === 'number') last = tone;
      return [1];
    }
    if (before === 'above') return [-2, -3];
    const goal = typeof tone === 'number' ? tone : (numberAfter(at) ?? tones[0]);
    const wanted = typeof goal === 'number' ? goal : last;
    // Round and round, the first tone comes again from above.
    const rises = wanted > last || (typeof tone !== 'number' && wanted === last);
    const distance = upTo(pcOf(last), pcOf(wanted));
    // Two numbers may be one pitch, as 3 and 4 of an altered scale: it is said again.
    const isSame = distance === 0 && Math.abs(wanted - last) < OCTAVE_STEPS;
    const step = isSame ? 0 : rises ? distance || OCTAVE : distance - OCTAVE;
    if (typeof tone === 'number') {
      last = tone;
      return [step];
    }
    const from = pcOf(last);
    if (tone === 'below') return [step - 1];
    return [step + 1, step + 2].filter((one) => isHome((from + one + 2 * OCTAVE) % OCTAVE));
  });
}
