/** Target paths: the player's rules put to the solver, and its answer in the player's terms. */
import { prettyDegree } from '../theory/degree';
import type { Analysis } from '../harmony/analysis';
import { lastPosition } from '../neck/position';
import { allowedDegrees, positionAt, stagesOf, wishes, type Candidate, type Stage } from './candidates';
import { FREE_FRETS, type TargetOptions, type Weights } from './options';
import { solvePaths, stepTable, type StepTable } from './solve';

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

/** Why there is no path, and what would give one. */
export interface NoPath {
  readonly change: number;
  readonly message: string;
}

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

/** Whether the rules allow a step. A rising line may stay but never falls; alternation takes the other slot. */
function allowsStep(
  from: Candidate,
  to: Candidate,
  { direction, alternate, column }: TargetOptions
): boolean {
  if (direction === 'rising' && to.midi < from.midi) return false;
  if (direction === 'falling' && to.midi > from.midi) return false;
  return !(alternate && !column) || from.slot !== to.slot;
}

/** The steps between stages; the same pair of chords has the same steps wherever it comes. */
function stepTables(stages: readonly Stage[], options: TargetOptions): StepTable[] {
  const known = new Map<readonly Candidate[], Map<readonly Candidate[], StepTable>>();
  return stages.slice(1).map(({ candidates: to }, i) => {
    const from = stages[i]!.candidates;
    const tables = known.get(from) ?? new Map<readonly Candidate[], StepTable>();
    known.set(from, tables);
    const table =
      tables.get(to) ??
      stepTable(from.length, to.length, (a, b) =>
        allowsStep(from[a]!, to[b]!, options) ? stepCost(from[a]!, to[b]!, options.weights) : Infinity
      );
    tables.set(to, table);
    return table;
  });
}

/**
 * The best target paths through a chart, cheapest first, as many as wanted where there are that many. The step that
 * closes a loop counts, but is free of direction and alternation, which no closed line could keep.
 */
export function findTargets(analysis: Analysis, options: TargetOptions): TargetAnswer {
  const stages = stagesOf(analysis, options);
  if (stages.length === 0) {
    const message = 'No change of this chart is asked for a target; choose more changes.';
    return { paths: [], stages, noPath: { change: 0, message } };
  }
  const empty = stages.find((stage) => stage.candidates.length === 0);
  if (empty) return { paths: [], stages, noPath: explainEmpty(empty, analysis, options) };
  const { weights } = options;
  const at = (stage: number, i: number) => stages[stage]!.candidates[i]!;
  const solution = solvePaths({
    nodes: stages.map((stage) => stage.candidates.map((c) => weights.degree[c.slot])),
    steps: stepTables(stages, options),
    close: options.loop ? (a, b) => stepCost(at(stages.length - 1, a), at(0, b), weights) : null,
    k: options.alternatives
  });
  if (solution.stuckAt !== undefined) {
    return { paths: [], stages, noPath: explainStuck(stages[solution.stuckAt]!, options) };
  }
  return {
    stages,
    paths: solution.paths.map(({ choice }) =>
      describe(
        stages,
        choice.map((i, stage) => at(stage, i)),
        options
      )
    )
  };
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
      cell,
      isFixed: stages[i]!.isFixed,
      step: before && {
        semitones: cell.midi - before.midi,
        frets: cell.fret - before.fret,
        strings: cell.string - before.string
      }
    };
  });
  const cost = parts.degree + parts.pitch + parts.hand + parts.string + parts.repeat;
  return { cost, parts, targets };
}

function where({ change }: Stage): string {
  return `${change.symbol} in bar ${change.bar}`;
}

function listed(names: readonly string[]): string {
  return names.length > 1 ? `${names.slice(0, -1).join(', ')} or ${names.at(-1)}` : (names[0] ?? '');
}

/** The change that has nowhere to land, and the smallest loosening that would give it a place. */
function explainEmpty(stage: Stage, analysis: Analysis, options: TargetOptions): NoPath {
  const { chord, index } = stage.change;
  const wanted = wishes(options);
  const degrees = allowedDegrees(chord, wanted, options).map(({ degree }) => degree);
  if (degrees.length === 0) {
    const own = [...new Set(chord.tones)].map(prettyDegree);
    return {
      change: index,
      message: `${where(stage)} has no ${listed(wanted.map(prettyDegree))}; allow one of its own tones there: ${listed(own)}.`
    };
  }
  const names = listed(degrees.map(prettyDegree));
  const isPlaced = (loosened: Partial<TargetOptions>) =>
    stagesOf(
      { ...analysis, changes: [stage.change] },
      { ...options, ...loosened, fixed: [], which: 'all' }
    )[0]!.candidates.length > 0;
  const from = positionAt(options, index) ?? 0;
  const near = Array.from({ length: lastPosition(options.neck) }, (_, i) => i + 1)
    .flatMap((distance) => [from - distance, from + distance])
    .filter((position) => position >= 0 && position <= lastPosition(options.neck));
  const hint = [
    options.position !== null && near.find((position) => isPlaced({ position })),
    options.strings && isPlaced({ strings: null }) && 'allow more strings',
    options.range && isPlaced({ range: null }) && 'widen the range',
    options.window && isPlaced({ window: null }) && 'widen the window of frets'
  ].find((found) => found !== false && found !== null && found !== undefined);
  const advice =
    typeof hint === 'number'
      ? `position ${hint} has one`
      : (hint ?? 'loosen the limits or allow other degrees');
  return {
    change: index,
    message: `${where(stage)}: its ${names} has no place within these limits; ${advice}.`
  };
}

function explainStuck(stage: Stage, { direction, alternate }: TargetOptions): NoPath {
  const why =
    direction === 'free'
      ? alternate
        ? 'thirds and sevenths cannot alternate up to here; this chord lacks one of them, or a fixed target is in the way'
        : 'no step leads here'
      : `a ${direction} line runs out of notes here; let it move freely, or give it more neck`;
  return { change: stage.change.index, message: `${where(stage)}: ${why}.` };
}
