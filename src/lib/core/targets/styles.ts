/** Named styles: weights and the way of the line in one word. They open into the weights themselves. */
import { DEFAULT_WEIGHTS, type Direction, type Weights } from './options';

export interface Style {
  readonly id: string;
  readonly name: string;
  readonly hint: string;
  readonly weights: Weights;
  readonly direction: Direction;
}

export const STYLES: readonly Style[] = [
  {
    id: 'smooth',
    name: 'Smooth',
    hint: 'As few semitones as can be',
    weights: DEFAULT_WEIGHTS,
    direction: 'free'
  },
  {
    id: 'thirds',
    name: 'Strong thirds',
    hint: 'Thirds above all, whatever the way to them',
    weights: { ...DEFAULT_WEIGHTS, degree: { '3': 0, '7': 4, '1': 6, '5': 7, tension: 8 } },
    direction: 'free'
  },
  {
    id: 'put',
    name: 'Stay put',
    hint: 'The hand stays where it is, strings are crossed instead',
    weights: { ...DEFAULT_WEIGHTS, pitch: 0.5, hand: 8, string: 0.1 },
    direction: 'free'
  },
  {
    id: 'climb',
    name: 'Climb',
    hint: 'The line goes up at every target',
    weights: DEFAULT_WEIGHTS,
    direction: 'rising'
  }
];

/** The style that some weights and a direction are; null where they are the player's own. */
export function styleOf(weights: Weights, direction: Direction): Style | null {
  const text = JSON.stringify(sorted(weights));
  return (
    STYLES.find((style) => style.direction === direction && JSON.stringify(sorted(style.weights)) === text) ??
    null
  );
}

/** Weights in one order of their names, however they were stored. */
function sorted({ degree, ...steps }: Weights): readonly number[] {
  const { pitch, hand, string, repeat, held, register, low } = steps;
  const degrees = [degree['1'], degree['3'], degree['5'], degree['7'], degree.tension];
  return [...degrees, pitch, hand, string, repeat, held, register, low];
}
