/**
 * Target paths on their way between threads. A long one is thousands of small objects, which a message copies one by one; its
 * different places are few, and everything else is numbers.
 */
import { numberAt } from '$lib/core/base/list';
import { entryOf, nth, sure } from '../core/base/list';
import type { Candidate } from '../core/targets/candidates';
import { stepBetween, type Target, type TargetPath } from '../core/targets/path';
import type { SolverResult } from './solve';

export interface PackedPath extends Pick<TargetPath, 'cost' | 'parts'> {
  /** The places that the path goes over, each once. */
  readonly cells: readonly Candidate[];
  /** Of each target its change, its beat, which of the cells it is, and 1 where it is pinned. */
  readonly numbers: Float64Array;
  /** Its first target is stepped to from its last. */
  readonly isLoop: boolean;
}

export interface PackedResult extends Pick<SolverResult, 'others'> {
  readonly answer: Omit<SolverResult['answer'], 'paths'> & { readonly paths: readonly PackedPath[] };
}

/** Numbers that tell of one target. */
const SIZE = 4;

export function packPath({ cost, parts, targets }: TargetPath): PackedPath {
  const at = new Map<Candidate, number>();
  const numbers = new Float64Array(SIZE * targets.length);
  targets.forEach(({ change, beat, cell, isFixed }, i) => {
    if (!at.has(cell)) at.set(cell, at.size);
    numbers.set([change, beat, entryOf(at, cell), Number(isFixed)], SIZE * i);
  });
  return { cost, parts, cells: [...at.keys()], numbers, isLoop: !!targets[0]?.step };
}

export function unpackPath({ cost, parts, cells, numbers, isLoop }: PackedPath): TargetPath {
  const targets: Target[] = [];
  let before = isLoop ? nth(cells, sure(numbers.at(-2), 'numbers')) : null;
  for (let i = 0; i < numbers.length; i += SIZE) {
    const cell = nth(cells, numberAt(numbers, i + 2));
    targets.push({
      change: numberAt(numbers, i),
      beat: numberAt(numbers, i + 1),
      cell,
      isFixed: numbers[i + 3] === 1,
      step: before && stepBetween(before, cell)
    });
    before = cell;
  }
  return { cost, parts, targets };
}

export const packResult = ({ answer, others }: SolverResult): PackedResult => ({
  answer: { ...answer, paths: answer.paths.map(packPath) },
  others
});

export const unpackResult = ({ answer, others }: PackedResult): SolverResult => ({
  answer: { ...answer, paths: answer.paths.map(unpackPath) },
  others
});
