import { describe, expect, it } from 'vitest';
import { keysIn } from '$lib/core/formats/book/keys';
import { orderOf, queryOfWish, wishIn, type BookWish } from './book-wish';

const HOME = { tonic: 'Eb', mode: 'major' } as const;
const asked = (query: string) => wishIn(new URLSearchParams(query), HOME);

describe('what a book is to hold', () => {
  it('is all keys in fourths, of a worksheet the own one, where nothing is said', () => {
    expect(asked('')).toEqual({
      kind: 'book',
      paper: 'a4',
      keys: keysIn('fourths', HOME),
      lines: 'fitting',
      withNotes: true
    });
    expect(asked('kind=worksheet').keys).toEqual([0]);
  });

  it('comes back from the address as it was', () => {
    const wishes: BookWish[] = [
      { kind: 'book', paper: 'letter', keys: [3, 0, 11], lines: 'all', withNotes: false },
      { kind: 'worksheet', paper: 'a4', keys: [5], lines: 'none', withNotes: true }
    ];
    for (const wish of wishes) expect(asked(queryOfWish(wish).slice(1))).toEqual(wish);
  });

  it.each([
    ['kind=novel&paper=a0&lines=some', { kind: 'book', paper: 'a4', lines: 'fitting' }],
    ['keys=3,3,12,-1,x,7', { keys: [3, 7] }],
    ['keys=99', { keys: keysIn('fourths', HOME) }]
  ])('leaves out what is wrong: %s', (query, wanted) => {
    expect(asked(query)).toMatchObject(wanted);
  });

  it('knows an order by the keys that stand in it, also where some are left out', () => {
    expect(orderOf(keysIn('easy', HOME), HOME)).toBe('easy');
    expect(orderOf([0, 5, 3, 8], HOME)).toBe('fourths');
    expect(orderOf([8, 0, 5], HOME)).toBeNull();
  });
});
