/** One job of the solver: the player's own path with its alternatives, and the other threads beside it. */
import { nth } from '../core/base/list';
import type { Analysis } from '../core/harmony/analysis';
import type { TargetOptions } from '../core/targets/options';
import { findTargets, type TargetAnswer, type TargetPath } from '../core/targets/path';

export interface SolverJob {
  readonly analysis: Analysis;
  readonly options: TargetOptions;
  /** Rules of other threads, each solved for its best path. */
  readonly others: readonly TargetOptions[];
}

/** A line that is only hinted at: in numbers alone, so that a long one comes over from the worker in no time. */
export interface FaintPath {
  /** Semitones it moves in all. */
  readonly semitones: number;
  /** Change, beat within it and MIDI pitch of each target, one after another. */
  readonly points: Float32Array;
}

export interface SolverResult {
  readonly answer: Omit<TargetAnswer, 'stages'>;
  readonly others: readonly (FaintPath | null)[];
}

function faint({ parts, targets }: TargetPath): FaintPath {
  return {
    semitones: parts.pitch,
    points: Float32Array.from(targets.flatMap(({ change, beat, cell }) => [change, beat, cell.midi]))
  };
}

/** A job that has been done. */
export interface Solved {
  readonly job: SolverJob;
  readonly result: SolverResult;
}

/** Whether two values are alike all the way down: what comes to a worker is always a copy. */
function alike(a: unknown, b: unknown): boolean {
  if (a === b) return true;
  if (typeof a !== 'object' || typeof b !== 'object' || !a || !b) return false;
  const [own, other] = [Object.entries(a), Object.entries(b)];
  return (
    own.length === other.length && own.every(([key, value]) => alike(value, (b as typeof a)[key as never]))
  );
}

/**
 * Does a job; `onProgress` is told how much of it is done, 0 to 1. `before`: the job done before it, whose other threads are taken
 * over where they are asked for again, as they are when a target of the player's own is pinned.
 */
export function solve(
  { analysis, options, others }: SolverJob,
  onProgress?: (done: number) => void,
  before?: Solved
): SolverResult {
  const known = before?.job.analysis === analysis ? before : undefined;
  const parts = 1 + others.length;
  const told = (part: number) => onProgress && ((done: number) => onProgress((part + done) / parts));
  const { paths, noPath } = findTargets(analysis, options, told(0));
  return {
    answer: { paths, ...(noPath ? { noPath } : {}) },
    others: others.map((rules, i) => {
      const same = known?.job.others.findIndex((one) => alike(rules, one)) ?? -1;
      if (same >= 0) return nth(known!.result.others, same);
      const [path] = findTargets(analysis, rules, told(i + 1)).paths;
      return path ? faint(path) : null;
    })
  };
}
