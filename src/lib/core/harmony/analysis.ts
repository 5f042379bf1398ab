/** The analysis of a chart: its key, and for every change its local key, numeral and function. */
import { nth } from '../base/list';
import type { ChartHead } from '../chart/model';
import { chordOf, type Change, type Form } from '../chart/unroll';
import { bluesSpoken, type BluesLanguage } from './blues-language';
import { findCadences } from './cadence';
import type { Cadence } from './cadence-model';
import { findKey } from './find-key';
import { heardAs } from './heard';
import { goalOf, inKey, sameKey, type Key } from './key';
import { isBluesKey, numeralOf, type HarmonicFunction, type Numeral } from './numeral';
import { plateauHome } from './plateaus';
import { homeOfFirst, localKeys, regionKeys } from './regions';
import { harmonicSteps, surroundingsOf, type Step } from './steps';
import { styleOf, type Style } from './style';

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
    const surroundings = surroundingsOf(steps, i);
    for (let index = step.from; index <= step.to; index++) {
      const change = nth(form.changes, index);
      const heard = heardAs(chordOf(change));
      const overrule = overruled.get(index);
      const key = overrule?.key ?? nth(keys, i);
      const numeralIn = (other: Key) =>
        numeralOf(heard, { key: other, blues: blues && sameKey(other, home), ...surroundings });
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

/** For every change the keys whose ii and V it is, or could be: the iv–♭VII7 of one key is the ii–V of another. */
function pivotKeys(steps: readonly Step[]): ReadonlyMap<number, readonly Key[]> {
  const found = new Map<number, Key[]>();
  steps.forEach((two, i) => {
    const five = steps[i + 1];
    if (!two.isTwo || two.up !== 5 || !five?.isFive) return;
    const mode = two.chord.family === 'half-diminished' ? 'minor' : 'major';
    const key: Key = { tonic: goalOf(five.chord.root), mode };
    for (let index = two.from; index <= five.to; index++)
      found.set(index, [...(found.get(index) ?? []), key]);
  });
  return found;
}
