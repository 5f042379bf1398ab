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

/** The values of some stages under their names, each worked out when it is read. */
export function valuesOf<T extends Readonly<Record<string, Stage<unknown>>>>(
  stages: T
): { readonly [K in keyof T]: T[K]['value'] } {
  const values = {};
  for (const [name, of] of Object.entries(stages)) {
    Object.defineProperty(values, name, { get: () => of.value, enumerable: true });
  }
  return values as { readonly [K in keyof T]: T[K]['value'] };
}
