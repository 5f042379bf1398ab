/** Local keys: which key each step of a form is in. Source: docs/music-rules.md, Keys. */
import { pitchClass, type PitchClass } from '../theory/note';
import { isTwoFive, type Cadence } from './cadence-model';
import { explainedBy, findKey, passagesOf } from './find-key';
import { belongsTo, inKey, isTonicChord, isTonicIn, sameKey, type Key, type Step } from './key';
import { type Mode } from '../theory/mode';

/** Cadences that open a region in the key of their goal. */
const OPENING: readonly Cadence['kind'][] = ['two-five-one', 'five-one', 'backdoor'];

/** Whether a key's goal chord is one the home key has anyway, so that reaching it is no change of key. */
function isAtHome(goal: Step, home: Key): boolean {
  return isTonicChord(goal.chord, home) || inKey(goal.chord, home);
}

interface Known {
  readonly home: Key;
  readonly declared: boolean;
  readonly blues: boolean;
  readonly cadences: readonly Cadence[];
  /** The key of each step as far as stretches tell. */
  readonly stretches: readonly Key[];
}

/**
 * The key of the moment for every step. A cadence to a goal that does not belong to the home key opens a region, from its first
 * chord until a chord no longer belongs to it; so does a stretch of four bars that fits another key clearly better. Where the
 * chords share no key at all, every one is its own centre.
 */
export function localKeys(
  steps: readonly Step[],
  { home, declared, blues, cadences, stretches }: Known
): readonly Key[] {
  if (!declared && isLoopOfCentres(steps, cadences)) {
    return steps.map((step) => ({ tonic: step.chord.root, mode: 'major' }));
  }
  const keys = [...stretches];
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
    // Inside a stretch of another key its own chords are at home.
    if (sameKey(cadence.goal, home) || isAtHome(goal, keys[to]!) || isAtHome(goal, home) || blues) continue;
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

/** Beats of other harmony that make a stretch: four bars of four. */
const SHORTEST_STRETCH = 16;
/** What a change of key costs, in beats of a chord that is not explained at all. */
const CHANGE_OF_KEY = 3;
/** What a key has to explain better than home, on the mean, to be heard at all. */
const CLEARLY = 0.25;

const TRIALS: readonly { readonly tonic: PitchClass; readonly mode: Mode }[] = (
  ['major', 'minor'] as const
).flatMap((mode) => Array.from({ length: 12 }, (_, tonic) => ({ tonic, mode })));

/**
 * Stretches that fit another key clearly better than the home key: of all ways of walking through the keys the one that explains the
 * chords best, each change of key having its price; then what is too short, or hardly better, or never rests on its tonic, goes back home.
 */
export function stretchKeys(steps: readonly Step[], home: Key): Key[] {
  const keys: Key[] = steps.map(() => home);
  const passages = passagesOf(steps);
  const atHome = explainedBy(passages, { tonic: pitchClass(home.tonic), mode: home.mode });
  // Most charts never leave: four bars that home does not hold have to be there first.
  const foreign = steps.reduce((sum, { beats }, i) => sum + (atHome[i]! < 1 ? beats : 0), 0);
  if (foreign < SHORTEST_STRETCH / 2) return keys;
  const held = [atHome, ...TRIALS.map((trial) => explainedBy(passages, trial))];
  const path = cheapestPath(steps, held);
  let next = 0;
  while (next < steps.length) {
    const here = path[next]!;
    let from = next;
    while (next < steps.length && path[next] === here) next++;
    let to = next - 1;
    // At its edges a stretch gives back what is at home as well.
    const isAsGoodAtHome = (i: number) => atHome[i]! >= held[here]![i]!;
    while (here !== 0 && from <= to && isAsGoodAtHome(from)) from++;
    while (here !== 0 && to > from && isAsGoodAtHome(to)) to--;
    const stretch = steps.slice(from, to + 1);
    const beats = stretch.reduce((sum, step) => sum + step.beats, 0);
    const gain = stretch.reduce(
      (sum, step, n) => sum + step.beats * (held[here]![from + n]! - atHome[from + n]!),
      0
    );
    const isClear = here !== 0 && beats >= SHORTEST_STRETCH && gain / beats >= CLEARLY;
    const key = isClear ? findKey(stretch)!.key : home;
    const rests = stretch.some(
      ({ root, chord }) => root === pitchClass(key.tonic) && isTonicIn(chord, key.mode)
    );
    if (rests && !isSameTonic(key, home)) keys.fill(key, from, to + 1);
  }
  return keys;
}

function isSameTonic(a: Key, b: Key): boolean {
  return pitchClass(a.tonic) === pitchClass(b.tonic);
}

/** For every step the index of its key on the cheapest way; exact. */
function cheapestPath(steps: readonly Step[], held: readonly (readonly number[])[]): number[] {
  const cameFrom: Int16Array[] = [];
  let costs = held.map(() => 0);
  steps.forEach(({ beats }, i) => {
    let best = 0;
    for (let k = 1; k < costs.length; k++) if (costs[k]! < costs[best]!) best = k;
    const from = new Int16Array(held.length);
    costs = held.map((explained, k) => {
      const stays = costs[k]! <= costs[best]! + CHANGE_OF_KEY;
      from[k] = stays ? k : best;
      return costs[from[k]!]! + (stays ? 0 : CHANGE_OF_KEY) + beats * (1 - explained[i]!);
    });
    cameFrom.push(from);
  });
  let at = costs.indexOf(Math.min(...costs));
  const path = new Array<number>(steps.length);
  for (let i = steps.length - 1; i >= 0; i--) {
    path[i] = at;
    at = cameFrom[i]![at]!;
  }
  return path;
}

/** Major sevenths or triads, of whose roots fewer than half share a key, and nothing resolves. */
function isLoopOfCentres(steps: readonly Step[], cadences: readonly Cadence[]): boolean {
  const allMajor = steps.every((step) => step.chord.family === 'major');
  const roots = new Set(steps.map((step) => step.root));
  if (!allMajor || roots.size < 2) return false;
  const resolves = cadences.some(({ kind }) => OPENING.includes(kind));
  const sharedIn = (tonic: PitchClass) =>
    new Set(steps.filter(({ chord }) => belongsTo(chord, tonic, 'major')).map(({ root }) => root)).size;
  const mostShared = Math.max(...Array.from({ length: 12 }, (_, tonic) => sharedIn(tonic)));
  return !resolves && mostShared * 2 < roots.size;
}
