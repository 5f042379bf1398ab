/** The analysis of a chart: its key, and for every change its local key, numeral and function. */
import { pitchClass, semitonesUp } from '../theory/note';
import type { Change, Form } from '../chart/unroll';
import { findCadences, harmonicSteps, isTwoFive, type Cadence } from './cadence';
import { findKey, inKey, isTonicChord, sameKey, type Key, type Step } from './key';
import { isBluesKey, numeralOf, type HarmonicFunction, type Numeral } from './numeral';

export interface AnalysedChange extends Change {
  /** The key of the moment: the home key, or the key a cadence has opened. */
  readonly key: Key;
  /** Null where no chord sounds or the symbol was not understood. */
  readonly numeral: Numeral | null;
  readonly function: HarmonicFunction | null;
  /** All tones belong to the key of the moment. */
  readonly inKey: boolean;
}

export interface Analysis {
  readonly key: Key & { readonly runnerUp?: Key };
  /** The key was declared, not found. */
  readonly declared: boolean;
  /** Its tonic and fourth degree are dominants at rest. */
  readonly blues: boolean;
  readonly changes: readonly AnalysedChange[];
  readonly cadences: readonly Cadence[];
}

const NO_KEY: Key = { tonic: 'C', mode: 'major' };

/** What the player knows better about a change: its key of the moment, its function, or both. */
export interface Overrule {
  readonly change: number;
  readonly key?: Key;
  readonly function?: HarmonicFunction;
}

/** Analyses a form. A declared key wins over the one found, and an overrule over everything found at its change. */
export function analyse(
  form: Form,
  declared: Key | null = null,
  overrules: readonly Overrule[] = []
): Analysis {
  const steps = harmonicSteps(form.changes);
  const found = findKey(steps);
  const home = declared ?? found?.key ?? NO_KEY;
  const cadences = findCadences(form, steps, home);
  const blues = isBluesKey(steps, home);
  const keys = localKeys(steps, cadences, home, blues);
  const overruled = new Map(overrules.map((overrule) => [overrule.change, overrule]));
  const byChange = new Map<number, AnalysedChange>();
  steps.forEach((step, i) => {
    const numeralIn = (key: Key) =>
      numeralOf(step, {
        key,
        blues: blues && sameKey(key, home),
        previous: steps[i - 1],
        // A form is played round and round: its last chord leads to its first.
        next: steps[i + 1] ?? (steps.length > 1 ? steps[0] : undefined)
      });
    for (let index = step.from; index <= step.to; index++) {
      const change = form.changes[index]!;
      const overrule = overruled.get(index);
      const key = overrule?.key ?? keys[i]!;
      const read = numeralIn(key);
      byChange.set(index, {
        ...change,
        key,
        numeral: read.numeral,
        function: overrule?.function ?? read.function,
        inKey: inKey(change.chord!, key)
      });
    }
  });
  const changes = form.changes.map(
    (change): AnalysedChange =>
      byChange.get(change.index) ?? { ...change, key: home, numeral: null, function: null, inKey: false }
  );
  const runnerUp = found && (sameKey(found.key, home) ? found.runnerUp : found.key);
  return {
    key: runnerUp ? { ...home, runnerUp } : home,
    declared: declared !== null,
    blues,
    changes,
    cadences
  };
}

/** Cadences that open a region in the key of their goal. */
const OPENING: readonly Cadence['kind'][] = ['two-five-one', 'five-one', 'backdoor'];

/** Whether a key's goal chord is one the home key has anyway, so that reaching it is no change of key. */
function isAtHome(goal: Step, home: Key): boolean {
  return isTonicChord(goal.chord, home) || inKey(goal.chord, home);
}

/**
 * The key of the moment for every step. A cadence to a goal that does not belong to the home key opens a region,
 * from its first chord until a chord no longer belongs to it. Where the chords share no key at all and nothing
 * resolves, every major chord is its own centre.
 */
function localKeys(
  steps: readonly Step[],
  cadences: readonly Cadence[],
  home: Key,
  blues: boolean
): readonly Key[] {
  const keys: Key[] = steps.map(() => home);
  if (isLoopOfCentres(steps, cadences, home)) {
    return steps.map((step) => ({ tonic: step.chord.root, mode: 'major' }));
  }
  /** A tonic that a cadence of the home key has just reached stays at home, even where it leads on as a ii. */
  const reached = new Set(cadences.filter(({ goal }) => sameKey(goal, home)).map(({ to }) => to));
  const leadingAway = new Set(
    cadences.filter((c) => isTwoFive(c) || c.kind === 'chain').map(({ from }) => from)
  );
  /** The step that a change belongs to. */
  const stepOf = new Map(
    steps.flatMap(({ from, to }, i) =>
      Array.from({ length: to - from + 1 }, (_, n): [number, number] => [from + n, i])
    )
  );
  for (const cadence of cadences) {
    if (!OPENING.includes(cadence.kind)) continue;
    const from = stepOf.get(cadence.from)!;
    const to = stepOf.get(cadence.to)!;
    const goal = steps[to]!;
    if (sameKey(cadence.goal, home) || isAtHome(goal, home) || blues) continue;
    for (let i = from; i <= to; i++) {
      const staysHome = reached.has(steps[i]!.from) && isTonicChord(steps[i]!.chord, home);
      if (!staysHome) keys[i] = cadence.goal;
    }
    // A V–I may be led into by chords of its key; what follows the goal stays while it belongs.
    for (let i = to + 1; i < steps.length; i++) {
      const step = steps[i]!;
      if (leadingAway.has(step.from) || !inKey(step.chord, cadence.goal) || isTonicChord(step.chord, home))
        break;
      keys[i] = cadence.goal;
    }
  }
  return keys;
}

/**
 * Major chords and nothing else, of which the best key explains no more than half: as its own, as borrowed from its
 * parallel minor, or as its Neapolitan.
 */
function isLoopOfCentres(steps: readonly Step[], cadences: readonly Cadence[], home: Key): boolean {
  const parallel: Key = { tonic: home.tonic, mode: home.mode === 'major' ? 'minor' : 'major' };
  const isExplained = (step: Step) =>
    inKey(step.chord, home) ||
    inKey(step.chord, parallel) ||
    semitonesUp(pitchClass(home.tonic), step.root) === 1;
  const allMajor = steps.every((step) => step.chord.family === 'major');
  const roots = new Set(steps.map((step) => step.root));
  const explained = new Set(steps.filter(isExplained).map((step) => step.root));
  return allMajor && roots.size > 1 && explained.size * 2 <= roots.size && cadences.length === 0;
}
