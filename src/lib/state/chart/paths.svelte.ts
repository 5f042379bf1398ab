/** The target line of a chart as it is solved: the plan's own, its alternatives, the others beside it, and what-if. */
// Derived maps are made anew and never changed in place, so that plain ones serve.
/* eslint-disable svelte/prefer-svelte-reactivity */
import { nth } from '$lib/core/base/list';
import type { AnalysedChange, Analysis } from '$lib/core/harmony/analysis';
import type { ApproachNotes } from '$lib/core/line/approach-notes';
import type { NamedCell } from '$lib/core/neck/shape';
import type { Arrangement } from '$lib/core/plan/arrange';
import type { ThreadRule } from '$lib/core/plan/model';
import { differencesOf, figuresOf, priceOf } from '$lib/core/targets/figures';
import type { Target, TargetPath } from '$lib/core/targets/path';
import { solve, type Solved, type SolverJob, type SolverResult } from '../../workers/solve';
import { Solver } from './solver.svelte';

/** The ways a target line can be led, and what they are called. */
export const THREADS: readonly { rule: ThreadRule; name: string; hint: string }[] = [
  { rule: 'free', name: 'Smoothest line', hint: 'The nearest way through the degrees you allow' },
  { rule: '3', name: 'Thirds', hint: 'The third of every chord' },
  { rule: '7', name: 'Sevenths', hint: 'The seventh of every chord' },
  { rule: 'alternate', name: '3 and 7 in turn', hint: 'Thirds and sevenths, one after the other' },
  { rule: '1', name: 'Roots', hint: 'The root of every chord' },
  { rule: '5', name: 'Fifths', hint: 'The fifth of every chord' }
];
/** The lines that are drawn faint beside the plan's own. */
const BESIDE: readonly ThreadRule[] = ['3', '7', 'alternate', 'free'];

/** Paths asked for on demand, and how many of them with different prices are shown beside the best. */
const ALTERNATIVES = 24;
const SHOWN_ALTERNATIVES = 5;
/** Changes of a chart that is solved on the page before the worker has come up. */
export const SOLVED_AT_ONCE = 200;
/** Changes of a chart whose line under the hand is solved on the page with every edit: quicker than telling the worker. */
const SOLVED_ON_PAGE = 100;
const UNSOLVED: SolverResult = { answer: { paths: [] }, others: [] };

export interface Alternative {
  readonly path: TargetPath;
  readonly price: string;
  readonly differences: readonly Target[];
}

/** What follows from an arrangement before anything is solved. */
interface Asked {
  readonly now: Arrangement;
  /** The other lines that are drawn. */
  readonly beside: typeof THREADS;
  readonly job: SolverJob;
  /**
   * Whether the path is solved here and now until the worker answers: of small charts, so that the page comes whole, and of
   * charts that are only shown wherever that is quick, as it is under the hand.
   */
  readonly isSolvedAtOnce: boolean;
  /** Whether the worker has nothing to do: the line is drawn with the edit, and not in a second picture. */
  readonly isQuick: boolean;
}

/** What is known of the line: the newest answer, and of its best path what the text still holds. */
interface Outcome {
  readonly solved: SolverResult;
  readonly path: TargetPath | null;
  readonly targets: ReadonlyMap<number, Target>;
}

export class Paths {
  readonly #arrangement: () => Arrangement;
  readonly solver = new Solver();
  readonly whatIf = new Solver();
  /** The next best paths, on demand. */
  wantsAlternatives = $state(false);
  /** A tone that the player holds the line to without having let go. */
  considered: { readonly change: number; readonly cell: NamedCell } | null = $state.raw(null);

  /** `isFrozen`: of a chart that is only shown, as in another key. */
  constructor(
    arrangement: () => Arrangement,
    private readonly isFrozen = false
  ) {
    this.#arrangement = arrangement;
  }

  /** All that is asked, in one step: what follows from an arrangement is then told of an edit once, not by every way there. */
  readonly #asked = $derived.by((): Asked => {
    const now = this.#arrangement();
    const { analysis, plan, targetOptions } = now;
    const count = analysis.changes.length;
    const beside = THREADS.filter(({ rule }) => rule !== plan.thread && BESIDE.includes(rule));
    const isUnderHand = plan.reach === 'hand';
    return {
      now,
      beside,
      job: {
        analysis,
        options: { ...targetOptions(plan.thread), alternatives: this.wantsAlternatives ? ALTERNATIVES : 1 },
        others: beside.map(({ rule }) => targetOptions(rule))
      },
      isSolvedAtOnce: count <= SOLVED_AT_ONCE || (this.isFrozen && isUnderHand),
      isQuick: count <= SOLVED_ON_PAGE && isUnderHand && !this.wantsAlternatives
    };
  });
  #solvedHere: Solved | undefined;
  #latest: Outcome | undefined;
  readonly #outcome = $derived.by((): Outcome => {
    const solved = this.#solve(this.#asked);
    const path = withoutGone(solved.answer.paths[0], this.#asked.now.analysis);
    // A worker that has not answered yet leaves the line as it was.
    if (this.#latest?.solved !== solved || this.#latest.path !== path) {
      this.#latest = { solved, path, targets: targetsOf(path) };
    }
    return this.#latest;
  });

  #solve({ job, isQuick, isSolvedAtOnce }: Asked): SolverResult {
    // Of what is only shown no other line is drawn.
    const here = () => {
      const own = this.isFrozen ? { ...job, others: [] } : job;
      this.#solvedHere = { job: own, result: solve(own, undefined, this.#solvedHere) };
      return this.#solvedHere.result;
    };
    if (isQuick) return here();
    return this.solver.latest?.result ?? (isSolvedAtOnce ? here() : UNSOLVED);
  }

  /** What the solver is asked: the plan's own path, and how the other lines would run. */
  get job(): SolverJob {
    return this.#asked.job;
  }

  /** Whether the line is known before the worker has answered. */
  get isSolvedAtOnce(): boolean {
    return this.#asked.isSolvedAtOnce;
  }

  get answer(): SolverResult['answer'] {
    return this.#outcome.solved.answer;
  }

  get path(): TargetPath | null {
    return this.#outcome.path;
  }

  /** The target at the start of each change. */
  get targets(): ReadonlyMap<number, Target> {
    return this.#outcome.targets;
  }

  readonly figures = $derived.by(() => this.path && figuresOf(this.path));
  readonly alternatives = $derived.by((): readonly Alternative[] => {
    const [best, ...others] = this.answer.paths;
    if (!best || !this.wantsAlternatives) return [];
    const figures = figuresOf(best);
    const byPrice = new Map<string, Alternative>();
    for (const path of others) {
      const price = priceOf(figures, figuresOf(path));
      const isSound = path.targets.every((target) => isThere(target, this.#asked.now.analysis));
      if (isSound && !byPrice.has(price)) {
        byPrice.set(price, { path, price, differences: differencesOf(best, path) });
      }
    }
    return [...byPrice.values()].slice(0, SHOWN_ALTERNATIVES);
  });
  /** The other lines, faint, to be picked. */
  readonly others = $derived.by(() =>
    this.#asked.beside.map(({ rule, name }, i) => ({
      rule,
      name,
      path: this.#outcome.solved.others[i] ?? null
    }))
  );

  readonly consideredJob = $derived.by((): SolverJob | null => {
    if (!this.considered) return null;
    const { change, cell } = this.considered;
    const { analysis, plan, targetOptions } = this.#asked.now;
    const options = targetOptions(plan.thread);
    const others = options.fixed.filter((pin) => pin.change !== change);
    const fixed = [...others, { change, string: cell.string, fret: cell.fret }];
    return { analysis, options: { ...options, fixed }, others: [] };
  });
  /** Where the line would go then, and what that would cost. */
  readonly prospect = $derived.by(() => {
    const latest = this.whatIf.latest;
    if (!this.considered || latest?.job !== this.consideredJob) return null;
    const path = withoutGone(latest.result.answer.paths[0], this.#asked.now.analysis);
    if (!path) return { path: null, price: latest.result.answer.noPath?.message ?? '' };
    return { path, price: this.figures ? priceOf(this.figures, figuresOf(path)) : '' };
  });

  /** The approach notes into each target, by its place in the path, and by the change they lead into. */
  readonly approachNotes = $derived.by((): ApproachNotes =>
    this.path ? this.#asked.now.approachNotes(this.path) : new Map()
  );
  readonly approachInto = $derived.by(
    () =>
      new Map(
        [...this.approachNotes].flatMap(([i, notes]) => {
          const target = nth(this.path!.targets, i);
          return target.beat === 1 ? [[target.change, notes] as const] : [];
        })
      )
  );

  /** Has the worker answer what is asked now, where it is needed. */
  follow(): void {
    const { isQuick, job } = this.#asked;
    if (isQuick) this.solver.forget();
    else this.solver.ask(job);
  }

  /** Lets the workers go with the page. */
  close(): void {
    this.solver.close();
    this.whatIf.close();
  }
}

/** A path may answer for a text that has been changed since; targets of changes that are gone are left out. */
function withoutGone(path: TargetPath | undefined, analysis: Analysis): TargetPath | null {
  if (!path) return null;
  const targets = path.targets.filter((target) => isThere(target, analysis));
  return targets.length === path.targets.length ? path : { ...path, targets };
}

function isThere({ change, beat }: Target, { changes }: Analysis): boolean {
  const now: AnalysedChange | undefined = changes[change];
  return !!now?.chord && beat <= now.beats + 1;
}

function targetsOf(path: TargetPath | null): ReadonlyMap<number, Target> {
  const first = path?.targets.filter(({ beat }) => beat === 1) ?? [];
  return new Map(first.map((target) => [target.change, target]));
}
