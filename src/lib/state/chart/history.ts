/** Undo and redo over immutable snapshots. */
export interface History<T> {
  readonly past: readonly T[];
  readonly present: T;
  readonly future: readonly T[];
  /** What the last edit was, so that a run of the same kind counts as one. */
  readonly kind: string | null;
  readonly at: number;
}

const LONGEST = 500;
/** Edits of one kind closer than this (ms) are undone together. */
const RUN = 1200;

export function startHistory<T>(present: T): History<T> {
  return { past: [], present, future: [], kind: null, at: 0 };
}

/** Records an edit; `mergeable` kinds (typing, moving the position) join the edit before. */
export function record<T>(
  history: History<T>,
  present: T,
  kind: string,
  at: number,
  mergeable = false
): History<T> {
  const joins = mergeable && history.kind === kind && at - history.at < RUN && history.past.length > 0;
  const past = joins ? history.past : [...history.past, history.present].slice(-LONGEST);
  return { past, present, future: [], kind, at };
}

export function undo<T>(history: History<T>): History<T> {
  const previous = history.past.at(-1);
  if (previous === undefined) return history;
  return {
    past: history.past.slice(0, -1),
    present: previous,
    future: [history.present, ...history.future],
    kind: null,
    at: 0
  };
}

export function redo<T>(history: History<T>): History<T> {
  const [next, ...future] = history.future;
  if (next === undefined) return history;
  return { past: [...history.past, history.present], present: next, future, kind: null, at: 0 };
}
