import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { homeUp, sharpsOf } from '../../theory/tonic';
import { BOOK_ORDERS, keysIn } from './keys';
import { leftOn, openingsOf, pagesOf, type Block } from './pages';
import { MARGINS, PAPERS, roomOn } from './paper';

const row = (height: number, rows = 'rows'): Block => ({ height, rows });
const heading: Block = { height: 8, keepsNext: true };
const counts = (pages: readonly (readonly unknown[])[]) => pages.map((page) => page.length);

describe('pages', () => {
  it('are filled as far as they go', () => {
    expect(counts(pagesOf([row(10), row(10), row(10), row(10)], 20))).toEqual([2, 2]);
    expect(pagesOf([], 20)).toEqual([]);
  });

  it('leave no single row alone: neither the last one nor the first', () => {
    expect(counts(pagesOf([row(10), row(10), row(10), row(10), row(10)], 40))).toEqual([3, 2]);
    const other = { height: 25 };
    expect(counts(pagesOf([other, row(10), row(10), row(10)], 40))).toEqual([1, 3]);
    // Rows of two kinds are two runs.
    expect(counts(pagesOf([row(10), row(10), row(10, 'b'), row(10, 'b')], 20))).toEqual([2, 2]);
  });

  it('end with no heading', () => {
    expect(counts(pagesOf([row(10), row(10), heading, row(10), row(10)], 30))).toEqual([2, 3]);
  });

  it('give a block that is too high a page of its own, and rows that cannot be kept together what room there is', () => {
    expect(counts(pagesOf([{ height: 99 }, { height: 5 }], 20))).toEqual([1, 1]);
    expect(counts(pagesOf([row(15), row(15), row(15)], 20))).toEqual([1, 1, 1]);
    expect(counts(pagesOf([heading, { height: 19 }], 20))).toEqual([1, 1]);
  });

  it('hold every block once, in order, none over the foot', () => {
    const blocks = fc.array(
      fc.record({
        height: fc.integer({ min: 1, max: 60 }),
        rows: fc.constantFrom('a', 'b', undefined),
        keepsNext: fc.constantFrom(true, undefined)
      }),
      { maxLength: 60 }
    ) as fc.Arbitrary<Block[]>;
    fc.assert(
      fc.property(blocks, fc.integer({ min: 60, max: 200 }), (all, room) => {
        const pages = pagesOf(all, room);
        expect(pages.flat()).toEqual(all);
        for (const page of pages) expect(leftOn(page, room)).toBeGreaterThanOrEqual(0);
        expect(openingsOf(all, room).length % 2).toBe(0);
      }),
      { numRuns: 200 }
    );
  });

  it('open in pairs', () => {
    expect(counts(openingsOf([row(10), row(10)], 20))).toEqual([2, 0]);
    expect(counts(openingsOf([row(10), row(10), row(10), row(10)], 20))).toEqual([2, 2]);
    expect(counts(openingsOf([], 20))).toEqual([0, 0]);
  });
});

describe('the keys of a book', () => {
  const home = { tonic: 'Ab', mode: 'major' } as const;

  it.each(BOOK_ORDERS.map(({ id }) => id))('are all twelve, once, %s', (order) => {
    expect([...keysIn(order, home)].sort((a, b) => a - b)).toEqual(Array.from({ length: 12 }, (_, i) => i));
  });

  it('go round in fourths from the home key', () => {
    const names = keysIn('fourths', home).map((shift) => homeUp(home, shift).tonic);
    expect(names).toEqual(['Ab', 'Db', 'Gb', 'B', 'E', 'A', 'D', 'G', 'C', 'F', 'Bb', 'Eb']);
  });

  it('begin with the fewest accidentals', () => {
    const minor = { tonic: 'G', mode: 'minor' } as const;
    const counted = keysIn('easy', minor).map((shift) => Math.abs(sharpsOf(homeUp(minor, shift))));
    expect(counted).toEqual([...counted].sort((a, b) => a - b));
    expect(homeUp(minor, keysIn('easy', minor)[0]!).tonic).toBe('A');
  });
});

it('paper leaves the same margins on every size', () => {
  for (const paper of PAPERS) {
    const room = roomOn(paper);
    expect(room.width + MARGINS.inner + MARGINS.outer).toBeCloseTo(paper.width);
    expect(room.height + MARGINS.top + MARGINS.bottom).toBeCloseTo(paper.height);
  }
});
