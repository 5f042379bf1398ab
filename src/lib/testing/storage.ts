/** A stand-in for what a browser stores for a page. */

/** A store, and what is kept in it. */
export function fakeStorage() {
  const kept = new Map<string, string>();
  return {
    kept,
    getItem: (key: string) => kept.get(key) ?? null,
    setItem: (key: string, value: string) => void kept.set(key, value),
    removeItem: (key: string) => void kept.delete(key),
    key: (i: number) => [...kept.keys()][i] ?? null,
    get length() {
      return kept.size;
    }
  };
}
