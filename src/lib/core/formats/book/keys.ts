/** The keys of a book and their order. */
import { KEY_ORDERS, shiftOf } from '../../practice/ladder';
import { homeUp, sharpsOf, type Home } from '../../theory/tonic';

const ROUNDS = KEY_ORDERS.flatMap((order) => (order.id === 'stay' ? [] : [order]));

/** Orders of all twelve keys. */
export const BOOK_ORDERS = [
  ...ROUNDS.map(({ id, name }) => ({ id, name })),
  { id: 'easy', name: 'fewest accidentals first' }
] as const;
export type BookOrder = (typeof BOOK_ORDERS)[number]['id'];

const KEYS = 12;

/** All twelve keys in an order, as semitones above the home key, 0 to 11. */
export function keysIn(order: BookOrder, home: Home): number[] {
  if (order !== 'easy') return Array.from({ length: KEYS }, (_, round) => shiftOf(order, round));
  const accidentals = (shift: number) => Math.abs(sharpsOf(homeUp(home, shift)));
  // In fourths where they have as many, so that flats and sharps take turns.
  return keysIn('fourths', home).sort((a, b) => accidentals(a) - accidentals(b));
}
