/** Target paths: the player's rules put to the solver, and its answer in the player's terms. */
import type { Analysis } from '../harmony/analysis';
import { oncePer } from '../theory/once';
import { stagesOf, type Candidate, type Stage } from './candidates';
import { explainNoPath, type NoPath } from './no-path';
import { FREE_FRETS, type TargetOptions, type Weights } from './options';
import { solvePaths, stepTable, type Solution, type StepTable } from './solve';

export interface CostParts {
  readonly degree: number;
  readonly pitch: number;
  readonly hand: number;
  readonly string: number;
  readonly repeat: number;
}

/** How a target moves from the one before. */
export interface TargetStep {
  readonly semitones: number;
  readonly frets: number;
  /** Difference of the string numbers: negative towards the higher strings. */
  readonly strings: number;
}

export interface Target {
  readonly change: number;
  /** Beat within the change; 1 is its start. */
  readonly beat: number;
  readonly cell: Candidate;
  readonly isFixed: boolean;
  /** From the target before; for the first one, from the last when the path is a loop, else null. */
  readonly step: TargetStep | null;
}

export interface TargetPath {
  readonly cost: number;
  readonly parts: CostParts;
  readonly targets: readonly Target[];
}

/** The line of a player who aims at nothing: phrases have landings of their own. */
export const NO_TARGETS: TargetPath = {
  cost: 0,
  parts: { degree: 0, pitch: 0, hand: 0, string: 0, repeat: 0 },
  targets: []
};

export interface TargetAnswer {
  readonly paths: readonly TargetPath[];
  readonly stages: readonly Stage[];
  readonly noPath?: NoPath;
}

/** The cost of a step, part by part. */
function stepParts(from: Candidate, to: Candidate, weights: Weights): Omit<CostParts, 'degree'> {
  return {
    pitch: weights.pitch * Math.abs(to.midi - from.midi),
    hand: weights.hand * Math.max(0, Math.abs(to.fret - from.fret) - FREE_FRETS),
    string: weights.string * Math.abs(to.string - from.string),
    repeat: to.midi === from.midi ? weights.repeat : 0
  };
}

/** The same in one number; asked for every pair of candidates, so it makes no objects. */
function stepCost(from: Candidate, to: Candidate, weights: Weights): number {
  return (
    weights.pitch * Math.abs(to.midi - from.midi) +
    weights.hand * Math.max(0, Math.abs(to.fret - from.fret) - FREE_FRETS) +
    weights.string * Math.abs(to.string - from.string) +
    (to.midi === from.midi ? weights.repeat : 0)
  );
}

/** What a step may do: the way it may move, and whether it has to leave its pitch. */
interface StepRule {
  readonly way: 'free' | 'rising' | 'falling';
  /** Inside a change a second target takes another tone. */
  readonly moves: boolean;
}

function stepRule(stages: readonly Stage[], i: number, { direction }: TargetOptions): StepRule {
  const moves = stages[i]!.change.index === stages[i + 1]!.change.index;
  if (direction !== 'arch') return { way: direction, moves };
  return { way: i + 1 <= (stages.length - 1) / 2 ? 'rising' : 'falling', moves };
}

/** Whether the rules allow a step. Alternation takes the other slot. */
function allowsStep(from: Candidate, to: Candidate, rule: StepRule, options: TargetOptions): boolean {
  if (rule.way === 'rising' && to.midi < from.midi) return false;
  if (rule.way === 'falling' && to.midi > from.midi) return false;
  if (rule.moves && to.midi === from.midi) return false;
  return !(options.alternate && !options.column) || from.slot !== to.slot;
}

/** The steps between stages; the same pair of chords under the same rule has the same steps wherever it comes. */
function stepTables(stages: readonly Stage[], options: TargetOptions): StepTable[] {
  const known = new Map<readonly Candidate[], Map<readonly Candidate[], Map<string, StepTable>>>();
  return stages.slice(1).map(({ candidates: to }, i) => {
    const from = stages[i]!.candidates;
    const rule = stepRule(stages, i, options);
    const ofFrom = known.get(from) ?? new Map<readonly Candidate[], Map<string, StepTable>>();
    known.set(from, ofFrom);
    const tables = ofFrom.get(to) ?? new Map<string, StepTable>();
    ofFrom.set(to, tables);
    const key = `${rule.way} ${rule.moves}`;
    const table =
      tables.get(key) ??
      stepTable(from.length, to.length, (a, b) =>
        allowsStep(from[a]!, to[b]!, rule, options) ? stepCost(from[a]!, to[b]!, options.weights) : Infinity
      );
    tables.set(key, table);
    return table;
  });
}

/**
 * The best target paths through a chart, cheapest first, as many as wanted where there are that many. The step that
 * closes a loop counts, but is free of direction and alternation, which no closed line could keep.
 */
export function findTargets(
  analysis: Analysis,
  options: TargetOptions,
  onProgress?: (done: number) => void
): TargetAnswer {
  const stages = stagesOf(analysis, options);
  const solution = solveStages(stages, options, onProgress);
  if (solution.paths.length === 0)
    return {
      paths: [],
      stages,
      noPath: explainNoPath(analysis, options, stages, solution.stuckAt ?? null, canSolve)
    };
  return {
    stages,
    paths: solution.paths.map(({ choice }) =>
      describe(
        stages,
        choice.map((i, stage) => stages[stage]!.candidates[i]!),
        options
      )
    )
  };
}

/** Whether a chart has a path under some rules at all. */
function canSolve(analysis: Analysis, options: TargetOptions): boolean {
  const stages = stagesOf(analysis, options);
  return (
    stages.length > 0 && solveStages(stages, { ...options, loop: false, alternatives: 1 }).paths.length > 0
  );
}

/** Puts stages to the solver. An empty stage is where it is stuck. */
function solveStages(
  stages: readonly Stage[],
  options: TargetOptions,
  onProgress?: (done: number) => void
): Solution {
  const empty = stages.findIndex(({ candidates }) => candidates.length === 0);
  if (empty >= 0) return { paths: [], stuckAt: empty };
  const { weights } = options;
  const at = (stage: number, i: number) => stages[stage]!.candidates[i]!;
  // A chord that comes again has its candidates again.
  const nodesOf = oncePer((candidates: readonly Candidate[]) => {
    const ties = tieBreaks(candidates);
    return candidates.map(({ slot }, i) => weights.degree[slot] + ties[i]!);
  });
  return solvePaths({
    nodes: stages.map(({ candidates }) => nodesOf(candidates)),
    steps: stepTables(stages, options),
    close: options.loop ? (a, b) => stepCost(at(stages.length - 1, a), at(0, b), weights) : null,
    k: options.alternatives,
    ...(onProgress ? { onProgress } : {})
  });
}

/** So little that it decides between paths of one cost only; it is no part of the cost that is told. */
const TIE = 1e-7;
/** So many semitones and frets further from the middle a 3 or 7 is still taken before another tone. */
const BEFORE_OTHERS = 12;

/** Of paths that cost the same the one in the middle of the range and the hand wins, and 3 and 7 before other tones. */
function tieBreaks(candidates: readonly Candidate[]): number[] {
  const middle = (values: readonly number[]) => (Math.min(...values) + Math.max(...values)) / 2;
  const pitch = middle(candidates.map(({ midi }) => midi));
  const fret = middle(candidates.map((candidate) => candidate.fret));
  return candidates.map((candidate) => {
    const isTelling = candidate.slot === '3' || candidate.slot === '7';
    return (
      TIE *
      (Math.abs(candidate.midi - pitch) + Math.abs(candidate.fret - fret) + (isTelling ? 0 : BEFORE_OTHERS))
    );
  });
}

/** How one target moves from another. */
export function stepBetween(from: Candidate, to: Candidate): TargetStep {
  return { semitones: to.midi - from.midi, frets: to.fret - from.fret, strings: to.string - from.string };
}

function describe(stages: readonly Stage[], cells: readonly Candidate[], options: TargetOptions): TargetPath {
  const { weights, loop } = options;
  const parts = { degree: 0, pitch: 0, hand: 0, string: 0, repeat: 0 };
  const targets = cells.map((cell, i): Target => {
    const before = i > 0 ? cells[i - 1]! : loop ? cells.at(-1)! : null;
    parts.degree += weights.degree[cell.slot];
    if (before) {
      const step = stepParts(before, cell, weights);
      parts.pitch += step.pitch;
      parts.hand += step.hand;
      parts.string += step.string;
      parts.repeat += step.repeat;
    }
    return {
      change: stages[i]!.change.index,
      beat: stages[i]!.beat,
      cell,
      isFixed: stages[i]!.isFixed,
      step: before && stepBetween(before, cell)
    };
  });
  const cost = parts.degree + parts.pitch + parts.hand + parts.string + parts.repeat;
  return { cost, parts, targets };
}
