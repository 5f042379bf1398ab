/** A value that is worked out when it is first asked for, and handed on as long as what it is made of stays the same. */
export interface Stage<T> {
  readonly value: T;
  /** What was worked out last, here or before. */
  readonly latest: Known<T> | undefined;
}

interface Known<T> {
  readonly inputs: readonly unknown[];
  readonly value: T;
}

const isSame = (a: readonly unknown[], b: readonly unknown[]) =>
  a.length === b.length && a.every((one, i) => Object.is(one, b[i]));

/** A stage over some inputs, which are compared by identity with those of the stage `before` it. */
export function stage<T>(
  inputs: () => readonly unknown[],
  make: () => T,
  before: Stage<T> | undefined
): Stage<T> {
  let known: Known<T> | undefined;
  const last = before?.latest;
  return {
    get value() {
      if (!known) {
        const now = inputs();
        known = last && isSame(last.inputs, now) ? last : { inputs: now, value: make() };
      }
      return known.value;
    },
    get latest() {
      return known ?? last;
    }
  };
}
