/** One job of the solver: the player's own path with its alternatives, and the other threads beside it. */
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

/** Whether two sets of rules ask for the same path of one reading. */
function asksTheSame(rules: TargetOptions, other: TargetOptions): boolean {
  const alike = (a: unknown, b: unknown) =>
    a === b ||
    (Array.isArray(a) && Array.isArray(b) && a.length === b.length && a.every((one, i) => one === b[i]));
  return (Object.keys(rules) as (keyof TargetOptions)[]).every((key) => alike(rules[key], other[key]));
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
      const same = known?.job.others.findIndex((one) => asksTheSame(rules, one)) ?? -1;
      if (same >= 0) return known!.result.others[same]!;
      const [path] = findTargets(analysis, rules, told(i + 1)).paths;
      return path ? faint(path) : null;
    })
  };
}
