/** What an approach is told about a change: the analysis around it. */
import { chordOf } from '../chart/unroll';
import { nth } from '../base/list';
import { type Chord, type ChordFamily } from '../theory/chord';
import { oncePer } from '../base/once';
import { pitchClass, semitonesUp } from '../theory/note';
import type { AnalysedChange, Analysis } from '../harmony/analysis';
import type { BluesLanguage } from '../harmony/blues-language';
import { heardAs, isFive, isTriadFive } from '../harmony/heard';
import { isMinorKey, sameKey } from '../harmony/key';
import { romanText, type HarmonicFunction } from '../harmony/numeral';
import type { Style } from '../harmony/style';

export interface ChangeContext {
  readonly change: AnalysedChange & { readonly chord: Chord };
  /** The chord as it is heard: F/G as G9sus4. */
  readonly heard: Chord;
  /** The family of the chord as it is heard. */
  readonly family: ChordFamily;
  /** The next change whose chord differs, round the form; undefined in a one-chord chart. */
  readonly next: AnalysedChange | undefined;
  /** It leads as a dominant does: a V or the V of something, triad or seventh. */
  readonly isLeading: boolean;
  /** A leading chord that goes, or points, to a minor chord. */
  readonly minorGoal: boolean;
  /** What comes next is a dominant with a third, a fourth up: the V to this ii. */
  readonly leadsToFive: boolean;
  /** The whole chart stays on one chord. */
  readonly isStatic: boolean;
  /** The whole chart is a blues, and the change stands in its key. */
  readonly blues: boolean;
  /** The blues that is spoken in the chart, where the change stands in its key. */
  readonly language: BluesLanguage | null;
  /** The style of the chart. */
  readonly style: Style;
  /** Dominant sevenths cadence in the chart; else it is a loop, of triads mostly. */
  readonly hasCadences: boolean;
  /** The change just before, where it has a chord. */
  readonly previous: (AnalysedChange & { readonly chord: Chord }) | undefined;
}

const contextsOf = oncePer((analysis: Analysis) => {
  const known: (ChangeContext | null)[] = [];
  return (index: number) => (known[index] ??= findContext(analysis, index));
});

/** The context of a change; null where it has no chord. Worked out once for an analysis: many ask. */
export function contextOf(analysis: Analysis, index: number): ChangeContext | null {
  return contextsOf(analysis)(index);
}

function findContext(analysis: Analysis, index: number): ChangeContext | null {
  const change = analysis.changes[index];
  if (!change || !sounds(change)) return null;
  const heard = heardAs(change.chord);
  const next = nextHarmony(analysis.changes, index);
  const before = analysis.changes[index - 1];
  const isAtHome = sameKey(change.key, analysis.key);
  const isLeading = leads(change, heard);
  return {
    change,
    heard,
    family: heard.family,
    next,
    isLeading,
    minorGoal: isLeading && pointsToMinor(change, heard, next),
    leadsToFive:
      next?.chord !== undefined &&
      next.chord !== null &&
      (isFive(next.chord) || isTriadFive(next.chord)) &&
      next.chord.tones.includes('3') &&
      semitonesUp(heard.rootPc, next.chord.rootPc) === 5,
    isStatic: next === undefined,
    blues: analysis.blues && isAtHome,
    language: isAtHome ? analysis.bluesLanguage : null,
    style: analysis.style,
    hasCadences: cadences(analysis),
    previous: before && sounds(before) ? before : undefined
  };
}

/** A 7♯9 that is the I of a loop or a vamp: both thirds at once, and at rest. */
export const isBlueTonic = ({ change, isStatic }: ChangeContext): boolean =>
  change.chord.tones.includes('#9') &&
  change.chord.tones.includes('5') &&
  (isStatic || change.function === 'tonic' || change.function === 'blues I');

function sounds(change: AnalysedChange): change is AnalysedChange & { readonly chord: Chord } {
  return change.chord !== null;
}

const LEADING: readonly (HarmonicFunction | null)[] = [
  'dominant',
  'secondary dominant',
  'tritone substitute',
  'blues V'
];

/** Whether a chord leads: any dominant seventh that is not at rest, and a triad where it is a V. */
function leads(change: AnalysedChange, heard: Chord): boolean {
  if (change.function === 'blues I' || change.function === 'blues IV') return false;
  if (isFive(heard)) return true;
  return isTriadFive(heard) && LEADING.includes(change.function) && change.numeral?.number === 5;
}

/** Whether dominant sevenths cadence somewhere in a chart. */
const cadences = oncePer(({ cadences, changes }: Analysis): boolean =>
  cadences.some(
    (cadence) =>
      ['two-five-one', 'two-five', 'five-one', 'backdoor'].includes(cadence.kind) &&
      changes.slice(cadence.from, cadence.to + 1).some(({ chord }) => chord && isFive(chord))
  )
);

/** All that an approach may look at, as one string: where it is the same, so is the answer. */
export const questionOf = oncePer((context: ChangeContext): string => {
  const {
    change,
    isLeading,
    minorGoal,
    leadsToFive,
    isStatic,
    blues,
    language,
    style,
    hasCadences,
    previous,
    next
  } = context;
  const { symbol, key, numeral, function: role, beats } = change;
  const roman = numeral && romanText(numeral);
  return [
    symbol,
    key.tonic,
    key.mode,
    roman,
    role,
    beats,
    change.inKey,
    isLeading,
    minorGoal,
    leadsToFive,
    isStatic,
    blues,
    language,
    style,
    hasCadences,
    previous?.symbol,
    next?.symbol
  ].join(' ');
});

/** The next change whose chord differs, round the form. */
function nextHarmony(changes: readonly AnalysedChange[], index: number): AnalysedChange | undefined {
  const next = nextHarmonies(changes)[index];
  return next === undefined ? undefined : changes[next];
}

/** For every change the place of the next one with another chord, found in one walk from the end, twice round. */
const nextHarmonies = oncePer((changes: readonly AnalysedChange[]): readonly (number | undefined)[] => {
  const count = changes.length;
  const nexts = new Array<number | undefined>(count);
  /** The nearest sounding change behind the one looked at. */
  let after: number | undefined;
  for (let step = 2 * count - 1; step >= 0; step--) {
    const at = step % count;
    const chord = nth(changes, at).chord;
    if (!chord) continue;
    if (after !== undefined) {
      const other = chordOf(nth(changes, after));
      const isSame = pitchClass(other.root) === pitchClass(chord.root) && other.family === chord.family;
      nexts[at] = isSame ? nexts[after] : after;
    }
    after = at;
  }
  return nexts;
});

function pointsToMinor(change: AnalysedChange, heard: Chord, next: AnalysedChange | undefined): boolean {
  // A substitute falls a semitone, and its own altered tones are another chord's.
  if (change.numeral?.isSubstitute) return false;
  if (next?.chord && semitonesUp(heard.rootPc, next.chord.rootPc) === 5) {
    const goal = next.chord.family;
    return goal === 'minor' || goal === 'half-diminished';
  }
  // Without its goal, the numeral says where it points: V7/vi, or the V of a minor key.
  const { numeral } = change;
  if (numeral?.number === 5 && !numeral.accidental && numeral.of) return numeral.of.isMinor;
  return change.function === 'dominant' && numeral?.number === 5 && isMinorKey(change.key);
}
