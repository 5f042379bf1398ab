/** Target paths: the player's rules put to the solver, and its answer in the player's terms. */
import { nth } from '../base/list';
import type { StringNumber } from '../base/units';
import type { Analysis } from '../harmony/analysis';
import type { Chord } from '../theory/chord';
import { DEGREES } from '../theory/degree';
import { semitonesUp, type PitchClass } from '../theory/note';
import { oncePer } from '../base/once';
import { stagesOf, type Candidate, type Stage } from './candidates';
import { explainNoPath, type NoPath } from './no-path';
import {
  FREE_FRETS,
  LOWEST_FREE_STRING,
  soloRegister,
  type Register,
  type TargetOptions,
  type Weights
} from './options';
import { solvePaths, stepTable, type Solution, type StepTable } from './solve';

export interface CostParts {
  readonly degree: number;
  readonly pitch: number;
  readonly hand: number;
  readonly string: StringNumber;
  readonly repeat: number;
  readonly held: number;
  readonly register: number;
  readonly low: number;
}

const NO_PARTS: CostParts = {
  degree: 0,
  pitch: 0,
  hand: 0,
  string: 0,
  repeat: 0,
  held: 0,
  register: 0,
  low: 0
};

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
  parts: NO_PARTS,
  targets: []
};

export interface TargetAnswer {
  readonly paths: readonly TargetPath[];
  readonly stages: readonly Stage[];
  readonly noPath?: NoPath;
}

/** What a target costs by itself, part by part. */
type NodeParts = Pick<CostParts, 'degree' | 'register' | 'low'>;

/** The register that counts; null where the player has named a place on the neck. */
function registerOf({ neck, position, isHandFree, window, strings, range }: TargetOptions): Register | null {
  const isPlaced = (position !== null && !isHandFree) || window || strings || range;
  return isPlaced ? null : soloRegister(neck);
}

function nodeParts(
  { slot, midi, string }: Candidate,
  weights: Weights,
  register: Register | null
): NodeParts {
  const outside = register ? Math.max(0, register.low - midi, midi - register.high) : 0;
  return {
    degree: weights.degree[slot],
    register: weights.register * outside,
    low: register && string > LOWEST_FREE_STRING ? weights.low : 0
  };
}

/** Pitch classes of a chord's third and seventh. */
const guidesOf = ({ tones, pitchClasses }: Chord): PitchClass[] =>
  pitchClasses.filter((_, i) => ['3', '7'].includes(DEGREES[nth(tones, i)].slot));

/**
 * The pitch classes that stand still from one chord to the next although another third or seventh of the two moves by a step: a line that holds
 * them says nothing of the change.
 */
const idleBetween = oncePer((from: Chord) =>
  oncePer((to: Chord): ReadonlySet<PitchClass> => {
    const isStep = (a: PitchClass, b: PitchClass) => [1, 2, 10, 11].includes(semitonesUp(a, b));
    const moves = guidesOf(from).flatMap((a) =>
      guidesOf(to).flatMap((b): [PitchClass, PitchClass][] => (isStep(a, b) ? [[a, b]] : []))
    );
    const isIdle = (pc: PitchClass) => moves.some(([a, b]) => a !== pc && b !== pc);
    return new Set(Array.from({ length: 12 }, (_, pc) => pc).filter(isIdle));
  })
);

/** The cost of a step, part by part. */
function stepParts(
  from: Candidate,
  to: Candidate,
  weights: Weights,
  idle: ReadonlySet<PitchClass>
): Omit<CostParts, keyof NodeParts> {
  const isSame = to.midi === from.midi;
  return {
    pitch: weights.pitch * Math.abs(to.midi - from.midi),
    hand: weights.hand * Math.max(0, Math.abs(to.fret - from.fret) - FREE_FRETS),
    string: weights.string * Math.abs(to.string - from.string),
    repeat: isSame ? weights.repeat : 0,
    held: isSame && idle.has(to.midi % 12) ? weights.held : 0
  };
}

/** The same in one number; asked for every pair of candidates, so it makes no objects. */
function stepCost(from: Candidate, to: Candidate, weights: Weights, idle: ReadonlySet<PitchClass>): number {
  return (
    weights.pitch * Math.abs(to.midi - from.midi) +
    weights.hand * Math.max(0, Math.abs(to.fret - from.fret) - FREE_FRETS) +
    weights.string * Math.abs(to.string - from.string) +
    (to.midi === from.midi ? weights.repeat + (idle.has(to.midi % 12) ? weights.held : 0) : 0)
  );
}

/** What stands still between two targets. */
const idleAt = (from: Stage, to: Stage) => idleBetween(from.change.chord)(to.change.chord);

/** What a step may do: the way it may move, and whether it has to leave its pitch. */
interface StepRule {
  readonly way: 'free' | 'rising' | 'falling';
  /** Inside a change a second target takes another tone. */
  readonly moves: boolean;
}

function stepRule(stages: readonly Stage[], i: number, { direction }: TargetOptions): StepRule {
  const moves = nth(stages, i).change.index === nth(stages, i + 1).change.index;
  if (direction !== 'arch') return { way: direction, moves };
  return { way: i + 1 <= (stages.length - 1) / 2 ? 'rising' : 'falling', moves };
}

/** Whether the rules allow a step. Alternation takes the other slot. */
function allowsStep(from: Candidate, to: Candidate, rule: StepRule, options: TargetOptions): boolean {
  if (rule.way === 'rising' && to.midi < from.midi) return false;
  if (rule.way === 'falling' && to.midi > from.midi) return false;
  const alternates = options.alternate && !options.column;
  // Holding is neither rising nor falling, and no alternation.
  const mayStay = options.direction === 'free' || options.direction === 'arch';
  if ((rule.moves || !mayStay || alternates) && to.midi === from.midi) return false;
  return !alternates || from.slot !== to.slot;
}

/** The steps between stages; the same pair of chords under the same rule has the same steps wherever it comes. */
function stepTables(stages: readonly Stage[], options: TargetOptions): StepTable[] {
  const known = new Map<readonly Candidate[], Map<readonly Candidate[], Map<string, StepTable>>>();
  return stages.slice(1).map(({ candidates: to }, i) => {
    const from = nth(stages, i).candidates;
    const rule = stepRule(stages, i, options);
    const idle = idleAt(nth(stages, i), nth(stages, i + 1));
    const ofFrom = known.get(from) ?? new Map<readonly Candidate[], Map<string, StepTable>>();
    known.set(from, ofFrom);
    const tables = ofFrom.get(to) ?? new Map<string, StepTable>();
    ofFrom.set(to, tables);
    // A pinned target is a candidate of its own, whatever its chord.
    const key = `${rule.way} ${rule.moves} ${[...idle].join()}`;
    const table =
      tables.get(key) ??
      stepTable(from.length, to.length, (a, b) =>
        allowsStep(from[a]!, to[b]!, rule, options)
          ? stepCost(from[a]!, to[b]!, options.weights, idle)
          : Infinity
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
        choice.map((i, stage) => nth(nth(stages, stage).candidates, i)),
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
  const register = registerOf(options);
  const at = (stage: number, i: number) => nth(stages[stage]!.candidates, i);
  const [first, last] = [stages[0], stages.at(-1)];
  const round = options.loop && first && last ? idleAt(last, first) : null;
  // A chord that comes again has its candidates again.
  const nodesOf = oncePer((candidates: readonly Candidate[]) => {
    const ties = tieBreaks(candidates);
    return candidates.map((candidate, i) => {
      const { degree, register: outside, low } = nodeParts(candidate, weights, register);
      return degree + outside + low + nth(ties, i);
    });
  });
  return solvePaths({
    nodes: stages.map(({ candidates }) => nodesOf(candidates)),
    steps: stepTables(stages, options),
    close: round ? (a, b) => stepCost(at(stages.length - 1, a), at(0, b), weights, round) : null,
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
  const register = registerOf(options);
  const parts: Record<keyof CostParts, number> = { ...NO_PARTS };
  const add = (some: Partial<CostParts>) => {
    for (const [part, cost] of Object.entries(some)) parts[part as keyof CostParts] += cost;
  };
  const targets = cells.map((cell, i): Target => {
    const last = stages.length - 1;
    const at = i > 0 ? i - 1 : loop ? last : null;
    const before = at === null ? null : nth(cells, at);
    add(nodeParts(cell, weights, register));
    if (at !== null && before) add(stepParts(before, cell, weights, idleAt(nth(stages, at), nth(stages, i))));
    return {
      change: nth(stages, i).change.index,
      beat: nth(stages, i).beat,
      cell,
      isFixed: nth(stages, i).isFixed,
      step: before && stepBetween(before, cell)
    };
  });
  const cost = Object.values(parts).reduce((sum, part) => sum + part, 0);
  return { cost, parts, targets };
}
