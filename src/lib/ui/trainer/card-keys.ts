/** The keys of a card. */
import { FLAT_KEYS, SHARP_KEYS } from '$lib/core/practice/trainer/typed';
import type { Shortcut } from '../keys/keys';

/** Keys for up to twelve choices, as they lie in a row. */
export const CHOICE_KEYS = ['1', '2', '3', '4', '5', '6', '7', '8', '9', '0', '-', '='];
const DIGITS = ['1', '2', '3', '4', '5', '6', '7', '9'];

interface Card {
  /** Where degrees are asked: they are typed, ♭ or ♯ first; null elsewhere. */
  readonly degrees: {
    readonly type: (digit: string) => void;
    readonly sign: (accidental: -1 | 1) => void;
  } | null;
  /** Picks one of the choices, counted from 0. */
  readonly pick: (choice: number) => void;
  /** The next card, the first one, or the answer that is to be heard. */
  readonly goOn: () => void;
}

export function cardKeys({ degrees, pick, goOn }: Card): Shortcut[] {
  const typed = { single: true, command: false };
  return [
    ...(degrees
      ? [
          {
            id: 'card-flat',
            keys: 'b or −',
            name: 'Flat, then the degree',
            presses: FLAT_KEYS,
            run: () => degrees.sign(-1),
            ...typed
          },
          {
            id: 'card-sharp',
            keys: '# or +',
            name: 'Sharp, then the degree',
            presses: SHARP_KEYS.map((key) => `[Shift]+${key}`),
            run: () => degrees.sign(1),
            ...typed
          },
          ...DIGITS.map((digit) => ({
            id: `card-degree-${digit}`,
            keys: digit,
            name: `Degree ${digit}`,
            presses: [digit],
            run: () => degrees.type(digit),
            ...typed
          }))
        ]
      : []),
    ...CHOICE_KEYS.map((key, i) => ({
      id: `card-choice-${i}`,
      keys: key,
      name: `Choice ${i + 1}`,
      presses: [key],
      run: () => pick(i),
      ...typed
    })),
    {
      id: 'card-on',
      keys: 'Enter',
      name: 'Go on',
      presses: ['Enter', 'Space'],
      run: goOn,
      single: false,
      command: false
    }
  ];
}
