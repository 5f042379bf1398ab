/**
 * Finding the key of a run of chords. Every tonic and mode is tried: how well it explains each chord, by length, and what speaks
 * for its tonic, which is where the chords begin and end, how it is reached and how long it sounds. Source: docs/music-rules.md, Keys.
 */
import { entryOf, firstOf, lastOf, nth, sure } from '../base/list';
import type { Beats } from '../base/units';
import { type Chord } from '../theory/chord';
import { MODES, type Mode } from '../theory/mode';
import { plainName, semitonesUp, type NoteName, type PitchClass } from '../theory/note';
import { belongsTo, isTonicIn, shareIn, type Key } from './key';
import type { Step } from './steps';

/** A tonic and a mode on trial. */
interface Candidate {
  readonly tonic: PitchClass;
  readonly mode: Mode;
}

/** A chord between its neighbours, with how long it sounds there in all; a chart says the same few things many times. */
interface Passage {
  readonly before: Step | null;
  readonly step: Step;
  readonly after: Step | null;
  /** Semitones up to the root of the one after it; null where there is none. */
  readonly up: PitchClass | null;
  readonly beats: Beats;
}

/** The passages of some steps, and for each step which one it is. */
export interface Passages {
  readonly all: readonly Passage[];
  readonly of: readonly number[];
}

/** The passages of some steps, played round and round. */
export function passagesOf(steps: readonly Step[]): Passages {
  const all: { -readonly [K in keyof Passage]: Passage[K] }[] = [];
  const known = new Map<string, number>();
  const at = (i: number) => (steps.length > 1 ? nth(steps, (i + steps.length) % steps.length) : null);
  const of = steps.map((step, i) => {
    const [before, after] = [at(i - 1), at(i + 1)];
    const id = [before, step, after].map((one) => one?.chord.symbol).join(' ');
    let index = known.get(id);
    if (index === undefined) {
      known.set(id, (index = all.length));
      all.push({ before, step, after, up: after && semitonesUp(step.root, after.root), beats: 0 });
    }
    nth(all, index).beats += step.beats;
    return index;
  });
  return { all, of };
}

/** How well a key explains a chord that is not its own, from 0 to 1. */
const EXPLAINED = {
  /** A dominant of one of its chords, and the ii of that dominant. */
  leading: 0.85,
  leadingTriad: 0.8,
  substitute: 0.75,
  passing: 0.75,
  /** The I7 and IV7 of a blues. */
  blues: 0.9,
  /** Chords of the parallel modes that every loop of rock and pop may take: ♭III, ♭VI, ♭VII, iv, IV in minor. */
  usualBorrowed: 0.8,
  borrowed: 0.65,
  neapolitan: 0.6,
  /** A chord that is foreign, by the share of its tones that are not. */
  foreign: 0.5
};

/** The modes that lend chords, and the roots on which they are heard every day, in semitones above the tonic. */
const LENDERS: Readonly<Record<'major' | 'minor', { modes: readonly Mode[]; usual: readonly number[] }>> = {
  major: { modes: ['minor', 'dorian', 'mixolydian'], usual: [3, 5, 7, 8, 10] },
  minor: { modes: ['dorian', 'phrygian', 'major'], usual: [5, 2, 10] }
};

/** A dominant that wants to fall: altered, but for the 7♯9 that rests. */
const isAltered = ({ tones }: Chord) =>
  (['b9', '#5', 'b13'] as const).some((tone) => tones.includes(tone)) ||
  (tones.includes('#9') && tones.includes('b5'));

function explained({ before, step, after, up }: Passage, { tonic, mode }: Candidate): number {
  const { chord, root, isFive } = step;
  if (belongsTo(chord, tonic, mode)) return 1;
  const { isMinor } = MODES[mode];
  const distance = semitonesUp(tonic, root);
  if (isFive && !isAltered(chord) && !isMinor && (distance === 0 || distance === 5)) return EXPLAINED.blues;
  if (after) {
    const isOwn = (pc: PitchClass) => MODES[mode].steps.includes(semitonesUp(tonic, pc));
    if (up === 5 && isOwn(after.root)) {
      if (isFive) return EXPLAINED.leading;
      if (step.isTriadFive && !after.isFive) return EXPLAINED.leadingTriad;
    }
    if (step.isTwo && after.isFive && up === 5 && isOwn((after.root + 5) % 12)) return EXPLAINED.leading;
    if (isFive && up === 11) return EXPLAINED.substitute;
  }
  if (chord.family === 'diminished') {
    const isNear = (other: Step | null) => other && [0, 1, 11].includes(semitonesUp(other.root, root));
    if (isNear(before) || isNear(after)) return EXPLAINED.passing;
  }
  const lent = LENDERS[isMinor ? 'minor' : 'major'];
  if (lent.modes.some((other) => belongsTo(chord, tonic, other))) {
    return lent.usual.includes(distance) ? EXPLAINED.usualBorrowed : EXPLAINED.borrowed;
  }
  if (isFive && distance === 10) return EXPLAINED.usualBorrowed;
  if (distance === 1 && chord.family === 'major') return EXPLAINED.neapolitan;
  return EXPLAINED.foreign * shareIn(chord, tonic, mode);
}

/** In so few steps, none of them a ii–V, the chord a loop begins on says more than the one it ends on. */
const SHORT_LOOP = 32;

/**
 * What a key gains by where its tonic stands and how it is reached, beside the mean of what it explains. A cadence counts
 * once, however often it comes: a tune may cadence more often to its second degree than to its first.
 */
const GAIN = {
  loop: { first: 0.2, last: 0.04 },
  tune: { first: 0.12, last: 0.2 },
  lastLeadsHome: 0.06,
  twoFiveOne: 0.3,
  fiveOne: 0.12,
  triadFiveOne: 0.1,
  /** To a tonic that is a dominant itself, as in a blues. */
  fiveOneBlues: 0.05,
  twoFive: 0.1,
  /** What a V–I says more where the chords end with it. */
  ending: 0.08,
  sounding: 0.1,
  /** Its tonic is never heard. */
  silent: -0.12
};

/** What is known of the steps whatever the key. */
interface Evidence {
  readonly steps: readonly Step[];
  readonly passages: readonly Passage[];
  readonly beats: Beats;
  readonly isLoop: boolean;
  /** Two triads in turn: the first of them speaks for its tonic, whatever the step between them. */
  readonly isPair: boolean;
  /** The places of the steps on each root. */
  readonly onRoot: readonly (readonly number[])[];
  /** The steps that can be heard as at rest: no ii on its way to its V, and no V that one leads to or that brings the end. */
  readonly resting: readonly boolean[];
}

function evidenceOf(steps: readonly Step[]): Evidence {
  const resting = steps.map(
    (step, i) => !step.isTwoOfNext && !steps[i - 1]?.isTwoOfNext && !leadsOn(steps, i)
  );
  const onRoot: number[][] = Array.from({ length: 12 }, () => []);
  steps.forEach(({ root }, i) => nth(onRoot, root).push(i));
  return {
    steps,
    onRoot,
    passages: passagesOf(steps).all,
    beats: steps.reduce((sum, { beats }) => sum + beats, 0),
    isLoop: steps.length <= SHORT_LOOP && resting.every(Boolean),
    isPair: isPairOfTriads(steps),
    resting
  };
}

function isPairOfTriads(steps: readonly Step[]): boolean {
  const [a, b] = steps;
  const isTriad = ({ chord }: Step) => chord.tones.length <= 3;
  return (
    steps.length >= 4 &&
    steps.every((step, i) => isTriad(step) && step.chord.symbol === (i % 2 ? b : a)?.chord.symbol)
  );
}

/**
 * Whether a step is a dominant that leads on and is no tonic: altered, or resolving, or before a substitute that does. One whose own IV and V
 * are heard may be the I of a blues all the same.
 */
function leadsOn(steps: readonly Step[], at: number): boolean {
  const { isFive, resolves, isBeforeSubstitute, chord, root } = nth(steps, at);
  if (!isFive) return false;
  if (!resolves && !isBeforeSubstitute && !isAltered(chord)) return false;
  const has = (distance: number) => steps.some((other) => other.root === (root + distance) % 12);
  const isBluesTonic = has(5) && has(7) && !isAltered(chord) && at !== steps.length - 2;
  return !isBluesTonic;
}

function tonicGain(evidence: Evidence, { tonic, mode }: Candidate): number {
  const { steps, onRoot, beats, isLoop, resting } = evidence;
  const isTonic = (at: number) => {
    const { root, chord } = nth(steps, at);
    return nth(resting, at) && root === tonic && isTonicIn(chord, mode);
  };
  const { first, last } = isLoop ? GAIN.loop : GAIN.tune;
  const sounding = nth(onRoot, tonic).reduce((sum, at) => sum + (isTonic(at) ? nth(steps, at).beats : 0), 0);
  const final = lastOf(steps);
  const leadsHome = final.isFive && semitonesUp(final.root, tonic) === 5;
  return (
    (isTonic(0) ? first : 0) +
    (isTonic(steps.length - 1)
      ? isReached(evidence)
        ? Math.max(first, last)
        : last
      : leadsHome
        ? GAIN.lastLeadsHome
        : 0) +
    (sounding ? (GAIN.sounding * sounding) / beats : GAIN.silent) +
    cadenceGain(evidence, isTonic, { tonic, mode })
  );
}

/** Whether the last chord is reached by its V, with or without a ii, or by what stands for it, from chords that do not begin on it. */
function isReached({ steps, isPair }: Evidence): boolean {
  return !isPair && steps.at(-2)?.resolves === true;
}

/** The strongest way in which a key's tonic is reached; the end of the form leads round to its start. */
function cadenceGain(
  { steps, onRoot, isPair }: Evidence,
  isTonic: (at: number) => boolean,
  { tonic, mode }: Candidate
): number {
  let best = substituteGain(steps, nth(onRoot, (tonic + 1) % 12), isTonic);
  const { length } = steps;
  for (const i of nth(onRoot, (tonic + 7) % 12)) {
    const { root, isFive, isTriadFive } = nth(steps, i);
    if (!isFive && !isTriadFive) continue;
    const before = nth(steps, (i + length - 1) % length);
    const next = (i + 1) % length;
    const isPrepared = isFive && before.isTwo && semitonesUp(before.root, root) === 5;
    if (!isTonic(next)) {
      if (isPrepared && (before.chord.family === 'half-diminished') === MODES[mode].isMinor) {
        best = Math.max(best, GAIN.twoFive);
      }
      continue;
    }
    const goal = nth(steps, next);
    if (isPair && !MODES[mode].isMinor) continue;
    const gain = goal.isFive
      ? GAIN.fiveOneBlues
      : isPrepared
        ? GAIN.twoFiveOne
        : isFive
          ? GAIN.fiveOne
          : GAIN.triadFiveOne;
    // Round the end of a loop of triads I–IV looks the same.
    const isRound = next === 0 && !isFive;
    const ends = next === length - 1 && length > 2 && !goal.isFive;
    best = Math.max(best, (isRound ? 0.5 : 1) * gain + (ends ? GAIN.ending : 0));
  }
  return best;
}

/** What a tonic gains by being reached from the dominant a semitone above, with its ii or without. */
function substituteGain(
  steps: readonly Step[],
  fives: readonly number[],
  isTonic: (at: number) => boolean
): number {
  return Math.max(
    0,
    ...fives.map((i) => {
      if (!nth(steps, i).isSubstitute || !isTonic(i + 1)) return 0;
      const before = steps[i - 1];
      const isPrepared = before?.isTwo && before.up === 11;
      const ends = i + 2 === steps.length && steps.length > 2 ? GAIN.ending : 0;
      return (isPrepared ? GAIN.twoFiveOne : GAIN.fiveOne) + ends;
    })
  );
}

/** What makes a mode of its own: the roots its chords stand on, and the tone that no other mode of its third has. */
interface ModalFacts {
  readonly roots: readonly number[];
  readonly characteristic: number;
}

const MODAL: Readonly<Partial<Record<Mode, ModalFacts>>> = {
  dorian: { roots: [0, 2, 3, 5, 7, 10], characteristic: 9 },
  phrygian: { roots: [0, 1, 3, 10], characteristic: 1 },
  lydian: { roots: [0, 2, 11], characteristic: 6 },
  mixolydian: { roots: [0, 2, 5, 7, 9, 10], characteristic: 10 }
};

/** No chord of a modal loop sounds longer than the tonic by more than this. */
const MOST_ELSEWHERE = 2;

/** Of two keys as good the plainer one. */
const MODAL_PRICE = 0.02;

/**
 * Whether some chords stay in a mode: they begin on its tonic, which sounds long enough, stand on its steps and belong to it, sound its own
 * tone, and nothing among them cadences elsewhere.
 */
function staysIn({ steps, passages, resting }: Evidence, candidate: Candidate): boolean {
  const { tonic, mode } = candidate;
  const { roots, characteristic } = sure(MODAL[mode], 'MODAL');
  const first = firstOf(steps);
  if (first.root !== tonic || !resting[0] || !isTonicIn(first.chord, mode)) return false;
  const beatsOn = new Map<number, number>();
  let isHeard = false;
  for (const { step, after, up, beats } of passages) {
    const { chord, root, isFive } = step;
    const distance = semitonesUp(tonic, root);
    // In a Mixolydian key the chords on IV and ♭VII may carry a blue seventh of their own.
    const isBlue = mode === 'mixolydian' && isFive && distance === 10;
    if (!roots.includes(distance) || !(isBlue || belongsTo(chord, tonic, mode))) return false;
    const isAway = after !== null && after.root !== tonic && !after.isFive;
    if (isAway && isFive && up === 5) return false;
    beatsOn.set(distance, (beatsOn.get(distance) ?? 0) + beats);
    const bearsIt = distance !== 0 || mode === 'mixolydian' || mode === 'lydian';
    if (bearsIt && chord.pitchSet & (1 << ((tonic + characteristic) % 12))) isHeard = true;
  }
  const own = entryOf(beatsOn, 0);
  return (
    isHeard && !goesToRelative(steps) && [...beatsOn.values()].every((beats) => beats <= MOST_ELSEWHERE * own)
  );
}

/** ii–V–I in triads, whose last chord is the relative major's tonic. */
function goesToRelative(steps: readonly Step[]): boolean {
  const isMajorOn = (step: Step | undefined, root: PitchClass) =>
    step?.chord.family === 'major' && step.root === root % 12;
  return steps.some(
    ({ isTwo, root }, i) => isTwo && isMajorOn(steps[i + 1], root + 5) && isMajorOn(steps[i + 2], root + 10)
  );
}

/** The name of a tonic: as the chart spells that root, else the plain one. */
function tonicName({ tonic, mode }: Candidate, steps: readonly Step[]): NoteName {
  const spelled = steps.find((step) => step.root === tonic);
  if (spelled) return spelled.chord.root;
  const minorNames: Readonly<Record<number, NoteName>> = { 1: 'C#', 6: 'F#', 8: 'G#' };
  return (MODES[mode].isMinor ? minorNames[tonic] : undefined) ?? plainName(tonic);
}

const CANDIDATES: readonly Candidate[] = (['major', 'minor'] as const).flatMap((mode) =>
  Array.from({ length: 12 }, (_, tonic) => ({ tonic, mode }))
);

/** How much speaks for a key: from about 0 to 1.6. */
function scoreOf(evidence: Evidence, candidate: Candidate): number {
  const held = evidence.passages.reduce(
    (sum, passage) => sum + passage.beats * explained(passage, candidate),
    0
  );
  return held / evidence.beats + tonicGain(evidence, candidate);
}

/** The key that fits best and the runner-up; null where no chord sounds. */
export function findKey(steps: readonly Step[]): { key: Key; runnerUp: Key } | null {
  const first = steps[0];
  if (!first) return null;
  const evidence = evidenceOf(steps);
  const modal = (Object.keys(MODAL) as Mode[])
    .map((mode): Candidate => ({ tonic: first.root, mode }))
    .filter((candidate) => staysIn(evidence, candidate));
  const ranked = [
    ...CANDIDATES.map((candidate) => ({ candidate, score: scoreOf(evidence, candidate) })),
    ...modal.map((candidate) => ({ candidate, score: scoreOf(evidence, candidate) - MODAL_PRICE }))
  ].sort((a, b) => b.score - a.score);
  const keyOf = ({ candidate }: (typeof ranked)[number]): Key => ({
    tonic: tonicName(candidate, steps),
    mode: candidate.mode
  });
  return { key: keyOf(firstOf(ranked)), runnerUp: keyOf(nth(ranked, 1)) };
}

/** How well a key explains each of some steps, from 0 to 1, whatever its tonic does. */
export function explainedBy({ all, of }: Passages, candidate: Candidate): number[] {
  const held = all.map((passage) => explained(passage, candidate));
  return of.map((index) => nth(held, index));
}
