/** A book or a worksheet as its pages, in order. */
import { nth } from '$lib/core/base/list';
import type { Paper } from '$lib/core/formats/book/paper';
import type { BookKey } from '$lib/state/book/book.svelte';
import type { LinesIn } from '$lib/state/book/book-wish';
import { openingOf, worksheetOf, type Piece } from './pieces';

/** Where a key begins. */
export interface Entry {
  readonly key: BookKey;
  readonly page: number;
}

export type PageContent =
  | { readonly kind: 'cover' }
  | { readonly kind: 'guide' }
  | { readonly kind: 'contents'; readonly entries: readonly Entry[] }
  | {
      readonly kind: 'pieces';
      readonly key: BookKey;
      readonly pieces: readonly Piece[];
      /** It goes on from the page before. */
      readonly goesOn: boolean;
      /** What it leaves free is ruled. */
      readonly isRuled: boolean;
    };
export type Page = PageContent & { readonly number: number };

export interface BookWish {
  readonly paper: Paper;
  readonly lines: LinesIn;
  /** Room that is left is ruled for notes. */
  readonly withNotes: boolean;
}

const numbered = (pages: readonly PageContent[]): Page[] =>
  pages.map((page, i) => ({ ...page, number: i + 1 }));

/** Pages before the first opening, which begins on a left page. */
const FRONT = 3;

/** Cover, how it is read, contents; then an opening for every key. */
export function bookPages(keys: readonly BookKey[], { paper, lines, withNotes }: BookWish): Page[] {
  const openings = keys.map((key) => openingOf(key, paper, lines));
  let page = FRONT + 1;
  const entries = keys.map((key, i): Entry => {
    const entry = { key, page };
    page += nth(openings, i).length;
    return entry;
  });
  const inside = openings.flatMap((pages, i) =>
    pages.map((pieces, n): PageContent => ({
      kind: 'pieces',
      key: nth(keys, i),
      pieces,
      goesOn: n > 0,
      isRuled: withNotes
    }))
  );
  return numbered([{ kind: 'cover' }, { kind: 'guide' }, { kind: 'contents', entries }, ...inside]);
}

/** The questions of every key, then the answers of all of them. */
export function worksheetPages(keys: readonly BookKey[], paper: Paper): Page[] {
  const part = (isBlank: boolean) =>
    keys.flatMap((key) =>
      worksheetOf(key, paper, isBlank).map((pieces, i): PageContent => ({
        kind: 'pieces',
        key,
        pieces,
        goesOn: i > 0,
        isRuled: isBlank
      }))
    );
  return numbered([...part(true), ...part(false)]);
}
