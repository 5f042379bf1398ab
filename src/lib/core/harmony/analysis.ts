/** The analysis of a chart: its key, and for every change its local key, numeral and function. */
import { nth, sure } from '../base/list';
import type { ChartHead } from '../chart/model';
import { chordOf, type Change, type Form } from '../chart/unroll';
import { bluesSpoken, type BluesLanguage } from './blues-language';
import { findCadences, harmonicSteps } from './cadence';
import type { Cadence } from './cadence-model';
import { findKey } from './find-key';
import { heardAs, isFifthAbove, isFive, isSubstituteOf, isTwo } from './heard';
import { goalOf, inKey, sameKey, type Key, type Step } from './key';
import { isBluesKey, numeralOf, type HarmonicFunction, type Numeral } from './numeral';
import { plateauHome } from './plateaus';
import { styleOf, type Style } from './style';
import { homeOfFirst, localKeys, regionKeys } from './regions';

export interface AnalysedChange extends Change {
  /** The key of the moment: the home key, or the key a cadence has opened. */
  readonly key: Key;
  /** Null where no chord sounds or the symbol was not understood. */
  readonly numeral: Numeral | null;
  readonly function: HarmonicFunction | null;
  /** All tones belong to the key of the moment, or to the I, IV and V of its blues. */
  readonly inKey: boolean;
  /** The other keys to which it belongs as well, and what it is there; nothing where it is read in one way only. */
  readonly alsoIn: readonly OtherReading[];
}

/** A change in another key than that of the moment. */
export interface OtherReading extends Key {
  readonly numeral: Numeral;
}

export interface Analysis {
  readonly key: Key & { readonly runnerUp?: Key };
  /** The key was declared, not found. */
  readonly declared: boolean;
  /** Its tonic and fourth degree are dominants at rest. */
  readonly blues: boolean;
  /** The style that the chart declares, else the one that is heard in it. */
  readonly style: Style;
  /** Whether, and in which way, the blues is spoken in it. */
  readonly bluesLanguage: BluesLanguage | null;
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

/** What is told of a chart beside its chords. */
export interface Told {
  readonly overrules?: readonly Overrule[];
  /** What the chart says of its style and feel. */
  readonly head?: Pick<ChartHead, 'style' | 'feel'>;
}

/** Analyses a form. A declared key wins over the one found, and an overrule over everything found at its change. */
export function analyse(
  form: Form,
  declared: Key | null = null,
  { overrules = [], head = { style: null, feel: null } }: Told = {}
): Analysis {
  const steps = harmonicSteps(form.changes);
  const found = findKey(steps);
  const first = declared || !found ? null : homeOfFirst(steps, form.changes, found.key);
  const home = declared ?? plateauHome(steps) ?? first ?? found?.key ?? NO_KEY;
  const blues = isBluesKey(steps, home);
  const stretches = blues ? steps.map(() => home) : regionKeys(steps, form.changes, home);
  const cadences = findCadences(form, steps, { home, keys: stretches });
  const keys = localKeys(steps, { home, declared: declared !== null, blues, cadences, stretches });
  const overruled = new Map(overrules.map((overrule) => [overrule.change, overrule]));
  const pivots = pivotKeys(steps);
  const byChange = new Map<number, AnalysedChange>();
  steps.forEach((step, i) => {
    const neighbours = neighboursOf(steps, i);
    for (let index = step.from; index <= step.to; index++) {
      const change = nth(form.changes, index);
      const heard = heardAs(chordOf(change));
      const overrule = overruled.get(index);
      const key = overrule?.key ?? nth(keys, i);
      const numeralIn = (other: Key) =>
        numeralOf(heard, { key: other, blues: blues && sameKey(other, home), ...neighbours });
      const read = numeralIn(key);
      const isBlues = read.function.startsWith('blues');
      const others = [home, ...(pivots.get(index) ?? [])].filter(
        (other, n, all) =>
          !sameKey(other, key) && inKey(heard, other) && all.findIndex((one) => sameKey(one, other)) === n
      );
      byChange.set(index, {
        ...change,
        key,
        numeral: read.numeral,
        function: overrule?.function ?? read.function,
        inKey: isBlues || inKey(heard, key),
        alsoIn: others.map((other) => ({ ...other, numeral: numeralIn(other).numeral }))
      });
    }
  });
  const changes = form.changes.map(
    (change): AnalysedChange =>
      byChange.get(change.index) ?? {
        ...change,
        key: home,
        numeral: null,
        function: null,
        inKey: false,
        alsoIn: []
      }
  );
  const runnerUp = found && (sameKey(found.key, home) ? found.runnerUp : found.key);
  const style = styleOf(head, { key: home, blues, cadences, changes });
  return {
    key: runnerUp ? { ...home, runnerUp } : home,
    declared: declared !== null,
    blues,
    style,
    bluesLanguage: bluesSpoken(steps, cadences, { home, blues, style }),
    changes,
    cadences
  };
}

/** What stands round a step. A form is played round and round: its last chord leads to its first. */
function neighboursOf(steps: readonly Step[], at: number) {
  const round = (from: number) => (steps.length > 1 ? steps[from % steps.length] : undefined);
  const { root } = nth(steps, at);
  const [next, after] = steps.length > 2 ? [sure(round(at + 1), 'round'), sure(round(at + 2), 'round')] : [];
  const standsFor =
    next && after && isSubstituteOf(next, after) && (root + 11) % 12 === next.root
      ? (next.root + 6) % 12
      : undefined;
  // E, then E7, lead where the E7 goes; G7, then Gm7, leads nowhere.
  let ahead = 1;
  while (
    ahead < steps.length &&
    sure(round(at + ahead), 'round').root === root &&
    isFive(sure(round(at + ahead), 'round').chord)
  )
    ahead++;
  const onward = ahead < steps.length ? round(at + ahead) : undefined;
  return { previous: steps[at - 1], next: round(at + 1), onward, standsFor };
}

/** For every change the keys whose ii and V it is, or could be: the iv–♭VII7 of one key is the ii–V of another. */
function pivotKeys(steps: readonly Step[]): ReadonlyMap<number, readonly Key[]> {
  const found = new Map<number, Key[]>();
  steps.forEach((two, i) => {
    const five = steps[i + 1];
    if (!five || !isTwo(two.chord) || !isFive(five.chord) || !isFifthAbove(two.root, five.root)) return;
    const mode = two.chord.family === 'half-diminished' ? 'minor' : 'major';
    const key: Key = { tonic: goalOf(five.chord.root), mode };
    for (let index = two.from; index <= five.to; index++)
      found.set(index, [...(found.get(index) ?? []), key]);
  });
  return found;
}
