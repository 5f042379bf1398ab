/** Keys: reading, finding and what belongs to them. */
import { DEGREES } from '../theory/degree';
import { type Chord } from '../theory/chord';
import {
  noteAbove,
  pitchClass,
  plainName,
  readNote,
  semitonesUp,
  type NoteName,
  type PitchClass
} from '../theory/note';

export type Mode = 'major' | 'minor';

export interface Key {
  readonly tonic: NoteName;
  readonly mode: Mode;
}

/** A run of changes on one harmony, for reading cadences: V7sus4–V7 is one step, so are repeated bars. */
export interface Step {
  readonly from: number;
  readonly to: number;
  readonly chord: Chord;
  readonly beats: number;
  /** Pitch class of the root. */
  readonly root: PitchClass;
}

const MINOR_MODES = ['minor', 'dorian', 'phrygian', 'aeolian', 'locrian', 'moll'];
const MAJOR_MODES = ['major', 'ionian', 'lydian', 'mixolydian', 'dur', 'maj'];

/** Reads a key as players write it: "Gm", "Eb", "F# minor", "F dorian"; null where it is none. */
export function readKey(text: string): Key | null {
  const match = /^\s*([A-Ga-g](?:b|#|♭|♯)?)\s*(.*?)\s*$/.exec(text);
  const tonic = match && readNote(match[1]!);
  if (!tonic) return null;
  const word = match[2]!;
  if (word === '' || word === 'M' || MAJOR_MODES.includes(word.toLowerCase()))
    return { tonic, mode: 'major' };
  if (/^(m|mi|min|-)$/.test(word) || MINOR_MODES.includes(word.toLowerCase()))
    return { tonic, mode: 'minor' };
  return null;
}

const MAJOR_SET = [0, 2, 4, 5, 7, 9, 11];
const MINOR_SET = [0, 2, 3, 5, 7, 8, 10];
/** Chords of a minor key that take the raised leading tone: V and the diminished chord on it. */
const RAISED_LEADING_TONE = [0, 2, 3, 5, 7, 8, 11];
/** The minor tonic may carry its melodic sixth and seventh. */
const MELODIC_TONIC = [0, 2, 3, 5, 7, 9, 10, 11];

/** The tones a key lends to a chord on this root, as semitones above the tonic. */
function keySetFor(chord: Chord, key: Key, rootDistance: number): readonly number[] {
  if (key.mode === 'major') return MAJOR_SET;
  const family = chord.family;
  const leads =
    (rootDistance === 7 && (family === 'dominant' || family === 'major' || family === 'augmented')) ||
    (rootDistance === 11 && family === 'diminished');
  if (leads) return RAISED_LEADING_TONE;
  return rootDistance === 0 && family === 'minor' ? MELODIC_TONIC : MINOR_SET;
}

/** Whether every tone of a chord belongs to a key; a minor key's V with raised leading tone does. */
export function inKey(chord: Chord, key: Key): boolean {
  const tonic = pitchClass(key.tonic);
  const set = keySetFor(chord, key, semitonesUp(tonic, pitchClass(chord.root)));
  return chord.pitchClasses.every((pc) => set.includes(semitonesUp(tonic, pc)));
}

export function isTonicChord(chord: Chord, key: Key): boolean {
  if (pitchClass(chord.root) !== pitchClass(key.tonic)) return false;
  const family = chord.family;
  return key.mode === 'minor' ? family === 'minor' : family === 'major' || family === 'dominant';
}

/** How much a tone that fits says for a key: the third and seventh say most. */
const SLOT_WEIGHT: Readonly<Record<string, number>> = { '1': 1, '3': 1.2, '5': 0.5, '7': 0.8, tension: 0.2 };

/** The share (0–1) of a chord that a key holds, its telling tones counting more. */
function fit(chord: Chord, key: Key): number {
  const tonic = pitchClass(key.tonic);
  const root = pitchClass(chord.root);
  const set = keySetFor(chord, key, semitonesUp(tonic, root));
  let held = 0;
  let all = 0;
  for (const tone of chord.tones) {
    const weight = SLOT_WEIGHT[DEGREES[tone].slot]!;
    all += weight;
    if (set.includes((semitonesUp(tonic, root) + DEGREES[tone].semitones) % 12)) held += weight;
  }
  return held / all;
}

/**
 * What a key gains by where its tonic stands and how it is reached, beside the mean fit (0–1) of the chords. A cadence
 * counts once, however often it comes: a tune may cadence more often to its second degree than to its first.
 */
const BONUS = { first: 0.12, last: 0.2, lastLeadsHome: 0.06, resolution: 0.08, cadence: 0.22 };

/** How long each chord sounds in all; a chart says the same few chords many times. */
function beatsByChord(steps: readonly Step[]): readonly { readonly chord: Chord; readonly beats: number }[] {
  const bySymbol = new Map<string, { chord: Chord; beats: number }>();
  for (const { chord, beats } of steps) {
    const known = bySymbol.get(chord.symbol);
    if (known) known.beats += beats;
    else bySymbol.set(chord.symbol, { chord, beats });
  }
  return [...bySymbol.values()];
}

function score(steps: readonly Step[], sounding: ReturnType<typeof beatsByChord>, key: Key): number {
  const total = sounding.reduce((sum, { beats }) => sum + beats, 0);
  const meanFit = sounding.reduce((sum, { chord, beats }) => sum + beats * fit(chord, key), 0) / total;
  const first = steps[0]!;
  const last = steps.at(-1)!;
  const ends = isTonicChord(last.chord, key) ? BONUS.last : isDominantOf(last, key) ? BONUS.lastLeadsHome : 0;
  return meanFit + (isTonicChord(first.chord, key) ? BONUS.first : 0) + ends + cadenceBonus(steps, key);
}

function isDominantOf(step: Step, key: Key): boolean {
  return step.chord.family === 'dominant' && semitonesUp(pitchClass(key.tonic), step.root) === 7;
}

/** The strongest way in which a key's tonic is reached; the end of the form leads round to its start. */
function cadenceBonus(steps: readonly Step[], key: Key): number {
  let best = 0;
  steps.forEach((step, i) => {
    const next = steps[(i + 1) % steps.length]!;
    if (!isDominantOf(step, key) || !isTonicChord(next.chord, key)) return;
    const before = steps[(i + steps.length - 1) % steps.length]!;
    const isTwoFive =
      semitonesUp(pitchClass(key.tonic), before.root) === 2 && before.chord.tones.includes('b3');
    best = Math.max(best, isTwoFive ? BONUS.cadence : BONUS.resolution);
  });
  return best;
}

/** The name of a tonic: as the chart spells that root, else the plain one. */
function tonicName(pc: PitchClass, mode: Mode, steps: readonly Step[]): NoteName {
  const spelled = steps.find((step) => step.root === pc);
  if (spelled) return spelled.chord.root;
  const minorNames: Readonly<Record<number, NoteName>> = { 1: 'C#', 6: 'F#', 8: 'G#' };
  return (mode === 'minor' ? minorNames[pc] : undefined) ?? plainName(pc);
}

/** The key that fits best and the runner-up; null where no chord sounds. */
export function findKey(steps: readonly Step[]): { key: Key; runnerUp: Key } | null {
  if (steps.length === 0) return null;
  const sounding = beatsByChord(steps);
  const ranked = (['major', 'minor'] as const)
    .flatMap((mode) =>
      Array.from({ length: 12 }, (_, pc): Key => ({ tonic: tonicName(pc, mode, steps), mode }))
    )
    .map((key) => ({ key, score: score(steps, sounding, key) }))
    .sort((a, b) => b.score - a.score);
  return { key: ranked[0]!.key, runnerUp: ranked[1]!.key };
}

export function sameKey(a: Key, b: Key): boolean {
  return a.mode === b.mode && pitchClass(a.tonic) === pitchClass(b.tonic);
}

/** The tonic a fifth below the root of its dominant. */
export function goalOf(dominantRoot: NoteName): NoteName {
  return noteAbove(dominantRoot, '4P');
}
