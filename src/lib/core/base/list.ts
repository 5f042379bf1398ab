// Reading what has to be there. What is not is said by its place, at once, instead of going on as undefined.

/** The item at `index`, from 0. Throws a RangeError where the list has none there. */
export function nth<T>(list: readonly T[], index: number): T {
  if (index >= 0 && index < list.length) return list[index] as T;
  throw new RangeError(`There is no item ${index} in a list of ${list.length}.`);
}

/** The first item. Throws a RangeError where the list is empty. */
export const firstOf = <T>(list: readonly T[]): T => nth(list, 0);

/** The last item. Throws a RangeError where the list is empty. */
export const lastOf = <T>(list: readonly T[]): T => nth(list, list.length - 1);

/** What a map holds for `key`. Throws a RangeError where it holds nothing. */
export function entryOf<K, V>(map: ReadonlyMap<K, V>, key: K): V {
  const value = map.get(key);
  if (value === undefined)
    throw new RangeError(`There is no entry for ${String(key)} in a map of ${map.size}.`);
  return value;
}

/** What a rule of its place says is there. Throws an Error that names it where it is not. */
export function sure<T>(value: T, name: string): NonNullable<T> {
  if (value !== undefined && value !== null) return value;
  throw new Error(`${name} is missing.`);
}

/**
 * The number at `index` of a list or typed array. Throws a RangeError where it has none there. Not for loops over samples: read through by
 * lists of every kind, it is several times slower than reading them in their place.
 */
export function numberAt(list: ArrayLike<number>, index: number): number {
  const value = list[index];
  if (value === undefined) throw new RangeError(`There is no number ${index} in a list of ${list.length}.`);
  return value;
}
