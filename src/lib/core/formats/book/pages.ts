/** Breaking what is printed into pages: nothing is cut, no heading and no single row is left alone. */

import { nth } from '../../base/list';

/** What stands on a page as one piece. */
export interface Block {
  /** Millimetres. */
  readonly height: number;
  /** It never stands last on a page: a heading. */
  readonly keepsNext?: true;
  /** Rows of the same kind one after another: of these no single one is left alone on a page. */
  readonly rows?: string;
}

/** Rows that stay together at the foot of one page and at the head of the next. */
const TOGETHER = 2;

/** How many neighbours of the same rows stand from a block on, in a direction, itself counted. */
function run(blocks: readonly Block[], from: number, step: 1 | -1): number {
  const { rows } = nth(blocks, from);
  let count = 0;
  for (let i = from; blocks[i] && nth(blocks, i).rows === rows; i += step) count++;
  return count;
}

/** Whether a page may end before a block. */
function mayBreakBefore(blocks: readonly Block[], at: number): boolean {
  const [last, next] = [nth(blocks, at - 1), nth(blocks, at)];
  if (last.keepsNext) return false;
  if (next.rows === undefined || last.rows !== next.rows) return true;
  return run(blocks, at - 1, -1) >= TOGETHER && run(blocks, at, 1) >= TOGETHER;
}

/**
 * Fills pages with blocks, in order. `room`: the height of a page in millimetres. A page ends at the last place where it may; where
 * there is none, at the last block that fits, and a block that is higher than a page has one to itself.
 */
export function pagesOf<One extends Block>(blocks: readonly One[], room: number): One[][] {
  const pages: One[][] = [];
  let from = 0;
  while (from < blocks.length) {
    let filled = 0;
    let to = from;
    while (to < blocks.length && (to === from || filled + nth(blocks, to).height <= room)) {
      filled += nth(blocks, to).height;
      to++;
    }
    let end = to;
    while (end > from && end < blocks.length && !mayBreakBefore(blocks, end)) end--;
    if (end === from) end = to;
    pages.push(blocks.slice(from, end));
    from = end;
  }
  return pages;
}

/** Pages that open in pairs: an even number of them, the last one empty where they are odd. */
export function openingsOf<One extends Block>(blocks: readonly One[], room: number): One[][] {
  const pages = pagesOf(blocks, room);
  if (pages.length === 0) return [[], []];
  return pages.length % 2 === 0 ? pages : [...pages, []];
}

/** What the blocks of a page leave free, in millimetres. */
export function leftOn(page: readonly Block[], room: number): number {
  return room - page.reduce((sum, { height }) => sum + height, 0);
}
