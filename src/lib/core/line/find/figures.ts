/** Figures: cells that are carried through the changes, as the numbers of the tones they go through. */

/** A number above the root of the change, or a step next to the tone that follows. */
export type FigureTone = number | 'above' | 'below';

export interface Figure {
  readonly id: string;
  readonly name: string;
  /** One after another; started again as long as there is time. */
  readonly tones: readonly FigureTone[];
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
    tones: [1, 'above', 'below', 3, 'above', 'below', 5, 'above', 'below', 7]
  }
];

export function figureOf(id: string): Figure | undefined {
  return FIGURES.find((figure) => figure.id === id);
}

/** The chord degree a figure begins on, which is what its targets are. */
export function firstDegree({ tones }: Figure): '1' | '3' | '5' | '7' {
  const [first] = tones;
  return first === 3 ? '3' : first === 5 ? '5' : first === 7 ? '7' : '1';
}
