/** Local keys: which key each step of a form is in. Source: docs/music-rules.md, Keys. */
import { entryOf, nth, numberAt, sure } from '../base/list';
import type { Change } from '../chart/unroll';
import { type Mode } from '../theory/mode';
import { pitchClass, plainName, semitonesUp, type PitchClass } from '../theory/note';
import { isTwoFive, type Cadence } from './cadence-model';
import { explainedBy, findKey, passagesOf } from './find-key';
import { belongsTo, inKey, isMinorKey, isModal, isTonicChord, isTonicIn, sameKey, type Key } from './key';
import { withPlaning, withPlateaus } from './plateaus';
import { loopsOf, sectionsOf, type Span } from './spans';
import { cutOut, type Step } from './steps';

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
  /** The key of each step before its cadences are looked at. */
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
    const from = entryOf(stepOf, cadence.from);
    const to = entryOf(stepOf, cadence.to);
    const goal = nth(steps, to);
    // The home tonic is at home wherever its V leads to it.
    if (sameKey(cadence.goal, home) && !blues && !inKey(goal.chord, nth(keys, to))) {
      for (let i = from; i <= to; i++) keys[i] = home;
      continue;
    }
    // Inside a stretch of another key its own chords are at home.
    if (sameKey(cadence.goal, home) || isAtHome(goal, nth(keys, to)) || isAtHome(goal, home) || blues)
      continue;
    for (let i = from; i <= to; i++) {
      const staysHome = reached.has(nth(steps, i).from) && isTonicChord(nth(steps, i).chord, home);
      if (!staysHome) keys[i] = cadence.goal;
    }
    // A V–I may be led into by chords of its key; what follows the goal stays while it belongs.
    for (let i = to + 1; i < steps.length; i++) {
      const step = nth(steps, i);
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
/** So little better explained is as good as at home, for a chord that a stretch does not have itself. */
const HARDLY = 0.15;
/** What a key has to explain better than home, on the mean, to be heard at all. */
const CLEARLY = 0.25;

const TRIALS: readonly { readonly tonic: PitchClass; readonly mode: Mode }[] = (
  ['major', 'minor'] as const
).flatMap((mode) => Array.from({ length: 12 }, (_, tonic) => ({ tonic, mode })));

/**
 * Stretches that fit another key clearly better than the home key: of all ways of walking through the keys the one that explains the
 * chords best, each change of key having its price; then what is too short, or hardly better, or never rests on its tonic, goes back home.
 */
function stretchKeys(steps: readonly Step[], home: Key): Key[] {
  const keys: Key[] = steps.map(() => home);
  const passages = passagesOf(steps);
  const atHome = explainedBy(passages, { tonic: pitchClass(home.tonic), mode: home.mode });
  // Most charts never leave: four bars that home does not hold have to be there first.
  const foreign = steps.reduce((sum, { beats }, i) => sum + (nth(atHome, i) < 1 ? beats : 0), 0);
  if (foreign < SHORTEST_STRETCH / 2) return keys;
  const held = [atHome, ...TRIALS.map((trial) => explainedBy(passages, trial))];
  const path = cheapestPath(steps, held);
  let next = 0;
  while (next < steps.length) {
    const here = nth(path, next);
    let from = next;
    while (next < steps.length && path[next] === here) next++;
    let to = next - 1;
    // At its edges a stretch gives back what home explains as well, and a chord that it does not have itself.
    const isAsGoodAtHome = (i: number) =>
      nth(atHome, i) >= nth(nth(held, here), i) - (nth(nth(held, here), i) < 1 ? HARDLY : 0);
    // The ii stays with its V.
    const isTwoOf = (i: number, { tonic }: { readonly tonic: PitchClass }) =>
      i < to &&
      nth(steps, i).isTwo &&
      nth(steps, i + 1).isFive &&
      semitonesUp(tonic, nth(steps, i).root) === 2 &&
      semitonesUp(tonic, nth(steps, i + 1).root) === 7;
    while (here !== 0 && from <= to && isAsGoodAtHome(from) && !isTwoOf(from, nth(TRIALS, here - 1))) from++;
    while (here !== 0 && to > from && isAsGoodAtHome(to)) to--;
    const stretch = cutOut(steps, from, to);
    const beats = stretch.reduce((sum, step) => sum + step.beats, 0);
    const gain = stretch.reduce(
      (sum, step, n) => sum + step.beats * (nth(nth(held, here), from + n) - nth(atHome, from + n)),
      0
    );
    const isClear = here !== 0 && beats >= SHORTEST_STRETCH && gain / beats >= CLEARLY;
    const key = isClear ? sure(findKey(stretch), 'findKey').key : home;
    const rests = stretch.some(
      ({ root, chord }) => root === pitchClass(key.tonic) && isTonicIn(chord, key.mode)
    );
    if (rests && !isSameTonic(key, home)) keys.fill(key, from, to + 1);
  }
  return keys;
}

/** What a span has to explain of its chords in its own key, and how much better than home, to be a region of its own. */
const SPAN = { held: 0.95, gain: 0.12 };
/** Different roots of a loop that is heard as the same one when it comes transposed. */
const LOOP_ROOTS = 3;

/**
 * Regions that begin with a section or a loop: where one comes again transposed it is in the key of the former, moved likewise; where one
 * fits a key of its own, rests on its tonic and is explained better by it than by the home key, it is in that. The V right before belongs to it.
 */
function withSpans(
  steps: readonly Step[],
  spans: readonly Span[],
  home: Key,
  stretches: readonly Key[]
): Key[] {
  const keys = [...stretches];
  const passages = passagesOf(steps);
  const heldIn = ({ from, to }: Span, key: Key) => {
    const held = explainedBy(passages, { tonic: pitchClass(key.tonic), mode: key.mode });
    return shareOf(steps.slice(from, to + 1), held.slice(from, to + 1));
  };
  const known = new Map<string, Span>();
  for (const span of spans) {
    const former = known.get(span.shape);
    known.set(span.shape, former ?? span);
    const moved = former && span.roots >= LOOP_ROOTS ? transposedKey(steps, former, span, keys) : null;
    // A loop inside a section that has its key keeps it.
    const isSettled = !sameKey(nth(keys, span.from), home) && heldIn(span, nth(keys, span.from)) >= SPAN.held;
    const key = moved ?? (isSettled ? nth(keys, span.from) : ownKey(steps, span, home, heldIn));
    if (!key) continue;
    keys.fill(key, span.from, span.to + 1);
    const last = nth(steps, span.to);
    const leadsHome =
      (last.isFive || last.isTriadFive) &&
      semitonesUp(last.root, pitchClass(home.tonic)) === 5 &&
      !inKey(last.chord, key);
    if (leadsHome) keys[span.to] = home;
    if (span.from > 0 && leadsInto(steps, span.from, key, nth(keys, span.from - 1), home))
      keys[span.from - 1] = key;
  }
  return keys;
}

/** Whether the chord before a region is its V, or that of its first chord, and not at home where it stands. */
function leadsInto(steps: readonly Step[], at: number, key: Key, before: Key, home: Key): boolean {
  const five = nth(steps, at - 1);
  if (!five.isFive && !five.isTriadFive) return false;
  const isAtHome = sameKey(before, home) && inKey(five.chord, home);
  const isFifthOf = (root: PitchClass) => semitonesUp(five.root, root) === 5;
  return !isAtHome && (isFifthOf(pitchClass(key.tonic)) || isFifthOf(nth(steps, at).root));
}

const sumOf = <T>(all: readonly T[], value: (one: T, at: number) => number): number =>
  all.reduce((sum, one, at) => sum + value(one, at), 0);

/** The share of the beats of some steps that a key explains, 0 to 1, from what it explains of each. */
const shareOf = (steps: readonly Step[], explained: readonly number[]): number =>
  sumOf(steps, ({ beats }, i) => beats * nth(explained, i)) / sumOf(steps, ({ beats }) => beats);

/** The key of a span that is a former one transposed; null where it stands as it did. */
function transposedKey(steps: readonly Step[], former: Span, span: Span, keys: readonly Key[]): Key | null {
  const by = semitonesUp(nth(steps, former.from).root, nth(steps, span.from).root);
  if (by === 0) return null;
  const { tonic, mode } = nth(keys, former.from);
  const pc = (pitchClass(tonic) + by) % 12;
  const spelled = steps.slice(span.from, span.to + 1).find(({ root }) => root === pc);
  return { tonic: spelled?.chord.root ?? plainName(pc), mode };
}

/** Whether a span begins on a tonic, or with the ii and V of one, that its own V leads to: a V that the home key does not have. */
function isSetUp(own: readonly Step[], key: Key, home: Key): boolean {
  const tonic = pitchClass(key.tonic);
  const isTonic = ({ root, chord }: Step) => root === tonic && isTonicIn(chord, key.mode);
  const isFiveOf = ({ root, chord, isFive, isTriadFive }: Step) =>
    (isFive || isTriadFive) && semitonesUp(root, tonic) === 5 && !inKey(chord, home);
  const [first, second] = own;
  if (!first) return false;
  const isTwoFive =
    first.isTwo && semitonesUp(tonic, first.root) === 2 && second !== undefined && isFiveOf(second);
  const begins = isTonic(first) || isTwoFive;
  // At the end it leads round to where the span begins.
  return begins && own.some((five, i) => isFiveOf(five) && isTonic(nth(own, (i + 1) % own.length)));
}

/** The key of a span's own, where it has one. */
function ownKey(
  steps: readonly Step[],
  span: Span,
  home: Key,
  heldIn: (span: Span, key: Key) => number
): Key | null {
  const own = cutOut(steps, span.from, span.to);
  if (sumOf(own, ({ beats }) => beats) < SHORTEST_STRETCH || own.length < 2) return null;
  const { key } = sure(findKey(own), 'findKey');
  const isParallel = isSameTonic(key, home) && isMinorKey(key) === isMinorKey(home);
  if (isParallel || (isSameTonic(key, home) && isModal(key))) return null;
  const restsIn = ({ tonic, mode }: Key) =>
    own.some(({ root, chord }) => root === pitchClass(tonic) && isTonicIn(chord, mode));
  const rests = restsIn(key);
  // Where both tonics of relative keys are heard, each passage is in its own.
  if (isRelative(key, home) && restsIn(home)) return null;
  const held = heldIn(span, key);
  if (!rests || held < SPAN.held) return null;
  return held - heldIn(span, home) >= SPAN.gain || isSetUp(own, key, home) ? key : null;
}

/** What a key has to explain of the chords that a form begins with to be its home, and of its first section or loop to be one instead. */
const FIRST = { least: 0.9, own: 0.95 };

/**
 * The home key of a form that begins with a section or a loop in a key of its own, where the one found over all of it does not hold there, or
 * has no tonic that is heard; null for any other form.
 */
export function homeOfFirst(steps: readonly Step[], changes: readonly Change[], found: Key): Key | null {
  const first = [...sectionsOf(steps, changes), ...loopsOf(steps, changes)].find(
    ({ from, to }) => from === 0 && to < steps.length - 1
  );
  if (!first) return null;
  const own = cutOut(steps, 0, first.to);
  if (own.length < 2 || sumOf(own, ({ beats }) => beats) < SHORTEST_STRETCH) return null;
  const { key } = sure(findKey(own), 'findKey');
  const held = (candidate: Key) => {
    const tonic = pitchClass(candidate.tonic);
    return shareOf(own, explainedBy(passagesOf(own), { tonic, mode: candidate.mode }));
  };
  const isHeard = steps.some(
    ({ root, chord }) => root === pitchClass(found.tonic) && isTonicIn(chord, found.mode)
  );
  const holds = isHeard && held(found) >= FIRST.least;
  // Relative keys have the same notes: which of them is home all of the form tells better than its beginning.
  return !holds && !isRelative(key, found) && !sameKey(key, found) && held(key) >= FIRST.own ? key : null;
}

/**
 * The key of each step before cadences are looked at: stretches that fit another key, sections and loops that have one of their own, chords
 * that last long enough to be centres.
 */
export function regionKeys(steps: readonly Step[], changes: readonly Change[], home: Key): Key[] {
  const spans = [...sectionsOf(steps, changes), ...loopsOf(steps, changes)];
  const keys = withSpans(steps, spans, home, stretchKeys(steps, home));
  return withPlaning(steps, withPlateaus(steps, home, keys));
}

function isRelative(a: Key, b: Key): boolean {
  const [minor, major] = isMinorKey(a) ? [a, b] : [b, a];
  const isPair = isMinorKey(minor) && !isMinorKey(major) && !isModal(minor) && !isModal(major);
  return isPair && semitonesUp(pitchClass(minor.tonic), pitchClass(major.tonic)) === 3;
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
    for (let k = 1; k < costs.length; k++) if (nth(costs, k) < nth(costs, best)) best = k;
    const from = new Int16Array(held.length);
    costs = held.map((explained, k) => {
      const stays = nth(costs, k) <= nth(costs, best) + CHANGE_OF_KEY;
      from[k] = stays ? k : best;
      return nth(costs, numberAt(from, k)) + (stays ? 0 : CHANGE_OF_KEY) + beats * (1 - nth(explained, i));
    });
    cameFrom.push(from);
  });
  let at = costs.indexOf(Math.min(...costs));
  const path = new Array<number>(steps.length);
  for (let i = steps.length - 1; i >= 0; i--) {
    path[i] = at;
    at = nth(cameFrom, i)[at]!;
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
