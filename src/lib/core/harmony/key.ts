/** Keys and their modes: reading them, and what belongs to them. Source: docs/music-rules.md, Keys. */
import { nth } from '../base/list';
import { type Chord } from '../theory/chord';
import { MODE_NAMES, MODES, type Mode } from '../theory/mode';
import { noteAbove, pitchClass, readNote, semitonesUp, type NoteName, type PitchClass } from '../theory/note';

export interface Key {
  readonly tonic: NoteName;
  readonly mode: Mode;
}

/** A key with a minor third: minor, Dorian, Phrygian. */
export function isMinorKey({ mode }: Key): boolean {
  return MODES[mode].isMinor;
}

/** A key that is neither major nor minor: its chords take the modes of its own parent. */
export function isModal({ mode }: Key): boolean {
  return mode !== 'major' && mode !== 'minor';
}

/** What players call the modes; a Locrian key is a minor one here, for nothing rests on a diminished triad. */
const MODE_WORDS: Readonly<Record<string, Mode>> = {
  ...Object.fromEntries(MODE_NAMES.map((name) => [name, name])),
  maj: 'major',
  ionian: 'major',
  dur: 'major',
  m: 'minor',
  mi: 'minor',
  min: 'minor',
  '-': 'minor',
  aeolian: 'minor',
  locrian: 'minor',
  moll: 'minor',
  dor: 'dorian',
  phryg: 'phrygian',
  lyd: 'lydian',
  mixo: 'mixolydian',
  mixolyd: 'mixolydian'
};

/** Reads a key as players write it: "Gm", "Eb", "F# minor", "F dorian"; null where it is none. */
export function readKey(text: string): Key | null {
  const match = /^\s*([A-Ga-g](?:b|#|♭|♯)?)\s*(.*?)\s*$/.exec(text);
  const tonic = match && readNote(nth(match, 1));
  if (!tonic) return null;
  const word = nth(match, 2);
  if (word === '' || word === 'M') return { tonic, mode: 'major' };
  const mode = Object.hasOwn(MODE_WORDS, word.toLowerCase()) ? MODE_WORDS[word.toLowerCase()] : undefined;
  return mode ? { tonic, mode } : null;
}

/** A key as players write it, so that it reads back as the same: "Gm", "Eb", "D dorian". */
export function keyText({ tonic, mode }: Key): string {
  return mode === 'major' ? tonic : mode === 'minor' ? `${tonic}m` : `${tonic} ${mode}`;
}

const setOf = (steps: readonly number[]) => steps.reduce((set, step) => set | (1 << step), 0);

const MODE_SETS = Object.fromEntries(MODE_NAMES.map((mode) => [mode, setOf(MODES[mode].steps)])) as Record<
  Mode,
  number
>;
/** Chords of a minor key that take the raised leading tone: V, with the natural seventh as its ♯9, and vii°. */
const RAISED_LEADING_TONE = MODE_SETS.minor | (1 << 11);
/** The minor tonic may carry its melodic sixth and seventh. */
const MELODIC_TONIC = MODE_SETS.minor | (1 << 9) | (1 << 11);
/** A tonic at rest on a 7♯9 has both thirds. */
const BLUE_TONIC = MODE_SETS.mixolydian | (1 << 3);

/** The tones a key lends to a chord on this root, as a set of semitones above the tonic. */
function keySetFor(family: Chord['family'], mode: Mode, rootDistance: number): number {
  if (mode === 'mixolydian') return rootDistance === 0 ? BLUE_TONIC : MODE_SETS.mixolydian;
  if (mode !== 'minor') return MODE_SETS[mode];
  const leads =
    (rootDistance === 7 && (family === 'dominant' || family === 'major' || family === 'augmented')) ||
    (rootDistance === 11 && family === 'diminished');
  if (leads) return RAISED_LEADING_TONE;
  return rootDistance === 0 && family === 'minor' ? MELODIC_TONIC : MODE_SETS.minor;
}

/** A chord's tones as a set of semitones above a tonic. */
function heardFrom(tonic: PitchClass, { pitchSet }: Chord): number {
  return ((pitchSet >> tonic) | (pitchSet << (12 - tonic))) & 0xfff;
}

/** Whether every tone of a chord belongs to the key of a tonic and mode. */
export function belongsTo(chord: Chord, tonic: PitchClass, mode: Mode): boolean {
  const set = keySetFor(chord.family, mode, semitonesUp(tonic, chord.rootPc));
  return (heardFrom(tonic, chord) & ~set) === 0;
}

/** The share (0–1) of a chord's tones that a key holds. */
export function shareIn(chord: Chord, tonic: PitchClass, mode: Mode): number {
  const set = keySetFor(chord.family, mode, semitonesUp(tonic, chord.rootPc));
  const held = chord.pitchClasses.filter((pc) => set & (1 << semitonesUp(tonic, pc)));
  return held.length / chord.pitchClasses.length;
}

/**
 * The steps of a key that a line may take over a chord, as pitch classes, its own tones among them where the key has them. What lies a semitone
 * beside a tone that the key has not gives way to it: over A7 in C the C♯ leaves no room for the C.
 */
export function stepsOver(chord: Chord, { tonic, mode }: Key): ReadonlySet<PitchClass> {
  const steps = MODES[mode].steps.map((step) => (pitchClass(tonic) + step) % 12);
  const strangers = chord.pitchClasses.filter((pc) => !steps.includes(pc));
  const isBeside = (pc: PitchClass) => strangers.some((own) => [1, 11].includes(semitonesUp(own, pc)));
  return new Set(steps.filter((pc) => chord.pitchClasses.includes(pc) || !isBeside(pc)));
}

/** Whether every tone of a chord belongs to a key; a minor key's V with raised leading tone does. */
export function inKey(chord: Chord, key: Key): boolean {
  return belongsTo(chord, pitchClass(key.tonic), key.mode);
}

/** Whether a chord can be the tonic of a mode, its root being the tonic: power and suspended chords say no third. */
export function isTonicIn(chord: Chord, mode: Mode): boolean {
  const { family } = chord;
  if (family === 'power' || family === 'suspended') return true;
  if (MODES[mode].isMinor) return family === 'minor';
  return family === 'major' || (family === 'dominant' && mode !== 'lydian');
}

/** Whether a chord stands on a key's tonic and can be its I. */
export function isTonicChord(chord: Chord, key: Key): boolean {
  return chord.rootPc === pitchClass(key.tonic) && isTonicIn(chord, key.mode);
}

/** Whether two keys have one tonic, however it is spelled, and one mode. */
export function sameKey(a: Key, b: Key): boolean {
  return a.mode === b.mode && pitchClass(a.tonic) === pitchClass(b.tonic);
}

/** The modes from which a key borrows, those that share its tonic and are nearest first. */
const BORROWED_FROM: Readonly<Record<Mode, readonly Mode[]>> = {
  major: ['minor', 'dorian', 'mixolydian'],
  minor: ['dorian', 'major', 'phrygian'],
  dorian: ['minor', 'major'],
  phrygian: ['minor', 'major'],
  lydian: ['major', 'mixolydian', 'minor'],
  mixolydian: ['major', 'minor', 'dorian']
};

/** The parallel key that a chord is borrowed from; null where none of them holds it. */
export function lenderOf(chord: Chord, key: Key): Key | null {
  const mode = BORROWED_FROM[key.mode].find((other) => belongsTo(chord, pitchClass(key.tonic), other));
  return mode ? { tonic: key.tonic, mode } : null;
}

/** The tonic a fifth below the root of its dominant. */
export function goalOf(dominantRoot: NoteName): NoteName {
  return noteAbove(dominantRoot, '4P');
}
