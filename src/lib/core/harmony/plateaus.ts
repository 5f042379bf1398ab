/**
 * Chords that last so long that they are centres of their own, and suspended chords that are moved about in parallel. Source:
 * docs/music-rules.md, Where keys change.
 */
import { firstOf, nth } from '../base/list';
import type { Chord } from '../theory/chord';
import type { Mode } from '../theory/mode';
import { pitchClass, semitonesUp } from '../theory/note';
import { isMinorKey, type Key } from './key';
import type { Step } from './steps';

/** Beats of the shortest plateau, four bars of four, and of one that lets a mode be heard whatever stands around. */
const SHORTEST = 16;
const LONG = 32;
/** Share of a form's time that plateaus take up where it is made of them. */
const MOSTLY = 0.8;

/** Steps of a run of suspended chords that planes: so many at least, each a tone or less from the one before. */
const PLANING = 3;

const isSuspended = ({ tones }: Chord) =>
  !tones.includes('3') && !tones.includes('b3') && (tones.includes('11') || tones.includes('9'));

/** A chord that can be a centre at rest: minor seventh, major seventh, suspended. */
function canRest(chord: Chord): boolean {
  if (isSuspended(chord)) return true;
  return chord.family === 'minor'
    ? chord.tones.includes('b7')
    : chord.family === 'major' && chord.tones.includes('7');
}

const isLong = (steps: readonly Step[], i: number) => {
  const { chord, beats, isTwo, up } = nth(steps, i);
  const isTwoOfFive = isTwo && up === 5 && steps[i + 1]?.isFive;
  return beats >= SHORTEST && canRest(chord) && !isTwoOfFive;
};

/** iv, v and ♭VI of a key, and IVmaj7 and vi7 of a major one: chords that rest inside it. */
function isInside({ root, chord, isTwo }: Step, home: Key): boolean {
  const distance = semitonesUp(pitchClass(home.tonic), root);
  if (distance === 0 || distance === 8) return true;
  if (chord.family === 'minor' && (distance === 5 || distance === 7)) return true;
  const isMajor = !isMinorKey(home);
  return isMajor && ((distance === 5 && chord.family === 'major') || (distance === 9 && isTwo));
}

function modeOf({ chord }: Step, minor: Mode): Mode {
  if (isSuspended(chord)) return 'mixolydian';
  return chord.family === 'minor' ? minor : 'major';
}

const keyAt = (step: Step, minor: Mode): Key => ({ tonic: step.chord.root, mode: modeOf(step, minor) });

/** The mode of minor plateaus: Dorian; where each lasts four bars and no more they are heard as minor tonics. */
function minorMode(steps: readonly Step[], plateaus: readonly number[]): Mode {
  return plateaus.some((i) => nth(steps, i).beats >= LONG) ? 'dorian' : 'minor';
}

/** The home key of a form that is made of plateaus on several roots, or of chords that plane: that of the first; null for any other form. */
export function plateauHome(steps: readonly Step[]): Key | null {
  if (steps.length >= PLANING && steps.every(({ chord }) => isSuspended(chord))) {
    const isPlaning = withPlaning(steps, []).filter(Boolean).length === steps.length;
    if (isPlaning) return keyAt(firstOf(steps), 'minor');
  }
  const plateaus = steps.flatMap((_, i) => (isLong(steps, i) ? [i] : []));
  const first = plateaus[0];
  if (first !== 0) return null;
  const all = steps.reduce((sum, { beats }) => sum + beats, 0);
  const held = plateaus.reduce((sum, i) => sum + nth(steps, i).beats, 0);
  if (held < MOSTLY * all) return null;
  const home = keyAt(firstOf(steps), minorMode(steps, plateaus));
  // A minor tonic with its own iv or ♭VI is none of several centres.
  return plateaus.some((i) => !isInside(nth(steps, i), home)) ? home : null;
}

/** The keys of the steps with each plateau in its own: what rests inside the home key stays there. */
export function withPlateaus(steps: readonly Step[], home: Key, keys: readonly Key[]): Key[] {
  const plateaus = new Set(
    steps.flatMap((step, i) => (isLong(steps, i) && !isInside(step, home) ? [i] : []))
  );
  if (plateaus.size === 0) return [...keys];
  const minor = steps.length === 1 ? 'minor' : minorMode(steps, [...plateaus, ...atHome(steps, home)]);
  return keys.map((key, i) => (plateaus.has(i) ? keyAt(nth(steps, i), minor) : key));
}

const atHome = (steps: readonly Step[], home: Key) =>
  steps.flatMap(({ root }, i) => (root === pitchClass(home.tonic) && isLong(steps, i) ? [i] : []));

/** The keys of the steps with suspended chords that plane each their own centre. */
export function withPlaning(steps: readonly Step[], keys: readonly Key[]): Key[] {
  const own = [...keys];
  let from = 0;
  const isStep = (i: number) => {
    const { up } = nth(steps, i - 1);
    return up !== null && [1, 2, 10, 11].includes(up);
  };
  for (let i = 0; i <= steps.length; i++) {
    const goesOn = i < steps.length && isSuspended(nth(steps, i).chord) && (i === from || isStep(i));
    if (goesOn) continue;
    const next = steps[i];
    const resolves = next && steps[i - 1]?.up === 5;
    if (i - from >= PLANING && !resolves)
      for (let n = from; n < i; n++) own[n] = { tonic: nth(steps, n).chord.root, mode: 'mixolydian' };
    from = next && isSuspended(next.chord) ? i : i + 1;
  }
  return own;
}
