/** Keeps decisions on their changes when the chart's text is edited. */
import { diffArrays } from 'diff/lib/diff/array.js';

/**
 * Moves items that belong to changes by index from an old list of symbols to a new one. Items of changes that are
 * gone go with them.
 */
export function realign<T extends { readonly change: number }>(
  items: readonly T[],
  before: readonly string[],
  after: readonly string[]
): T[] {
  if (items.length === 0) return [];
  const place = new Map<number, number>();
  let [from, to] = [0, 0];
  for (const part of diffArrays([...before], [...after])) {
    const count = part.value.length;
    if (part.removed) from += count;
    else if (part.added) to += count;
    else {
      for (let i = 0; i < count; i++) place.set(from + i, to + i);
      from += count;
      to += count;
    }
  }
  return items.flatMap((item) => {
    const change = place.get(item.change);
    return change === undefined ? [] : [{ ...item, change }];
  });
}
