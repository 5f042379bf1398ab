/** What a book is to hold, as the page's address says it: `?kind=worksheet&order=easy&keys=0,5,10&paper=letter`. */
import { BOOK_ORDERS, keysIn, type BookOrder } from '$lib/core/formats/book/keys';
import { PAPERS, type Paper } from '$lib/core/formats/book/paper';
import type { Home } from '$lib/core/theory/tonic';

export const BOOK_KINDS = ['book', 'worksheet'] as const;
export type BookKind = (typeof BOOK_KINDS)[number];

export const LINES_IN = ['fitting', 'all', 'none'] as const;
export type LinesIn = (typeof LINES_IN)[number];

export interface BookWish {
  readonly kind: BookKind;
  readonly paper: Paper['id'];
  /** The keys in order, as semitones above the chart's own, each once. */
  readonly keys: readonly number[];
  /** Which of the kept lines stand in it: those that an opening has room for, all, or none. */
  readonly lines: LinesIn;
  readonly withNotes: boolean;
}

const KEYS = 12;

/** What an address wishes; what it does not say, or says wrongly, is as usual: all keys in fourths, of a worksheet the chart's own. */
export function wishIn(params: URLSearchParams, home: Home): BookWish {
  const kind = BOOK_KINDS.find((one) => one === params.get('kind')) ?? 'book';
  const said = (params.get('keys') ?? '')
    .split(',')
    .flatMap((text) => (/^\d{1,2}$/.test(text) ? [Number(text)] : []));
  const keys = [...new Set(said)].filter((shift) => shift < KEYS);
  const usual = kind === 'worksheet' ? [0] : keysIn('fourths', home);
  return {
    kind,
    paper: PAPERS.find(({ id }) => id === params.get('paper'))?.id ?? 'a4',
    keys: keys.length ? keys : usual,
    lines: LINES_IN.find((one) => one === params.get('lines')) ?? 'fitting',
    withNotes: params.get('notes') !== 'no'
  };
}

export function queryOfWish({ kind, paper, keys, lines, withNotes }: BookWish): string {
  const said = [
    `kind=${kind}`,
    `paper=${paper}`,
    `keys=${keys.join()}`,
    ...(lines === 'fitting' ? [] : [`lines=${lines}`]),
    ...(withNotes ? [] : ['notes=no'])
  ];
  return `?${said.join('&')}`;
}

/** The order that keys stand in; null for one of the player's own. */
export function orderOf(keys: readonly number[], home: Home): BookOrder | null {
  const isIn = (order: BookOrder) =>
    keysIn(order, home)
      .filter((shift) => keys.includes(shift))
      .join() === keys.join();
  return BOOK_ORDERS.find(({ id }) => isIn(id))?.id ?? null;
}
