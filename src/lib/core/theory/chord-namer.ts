/**
 * The name of some notes that sound together: the chord whose tones they are, the lowest one as its root where that can be, else as its
 * bass. The other way round than `chord-reader`. Source: docs/music-rules.md, Files.
 */
import { readChord } from './chord-reader';
import { plainName, type PitchClass } from './note';

/** What chords are called after their root, the plainer first: of two names for the same notes the first is taken. */
const SUFFIXES = [
  '',
  'm',
  '7',
  'maj7',
  'm7',
  'm7b5',
  'dim7',
  '6',
  'm6',
  'dim',
  'aug',
  'sus4',
  '7sus4',
  'sus2',
  'm(maj7)',
  'maj7#5',
  '7#5',
  '7b5',
  'maj7#11',
  '9',
  'maj9',
  'm9',
  '7b9',
  '7#9',
  '6/9',
  'm6/9',
  '9sus4',
  'add9',
  'm(add9)',
  '7b13',
  '13',
  'm11',
  '13b9',
  '5'
] as const;
/** Tones that players leave out first where a hand is short of fingers: fifths, in semitones over the root. */
const LEFT_OUT = 7;

interface Named {
  readonly suffix: string;
  /** Whether it stands for the whole chord or for one without its fifth. */
  readonly isWhole: boolean;
}

/** Sets of semitones over a root (bit n for n), to what they are called. */
const NAMES: ReadonlyMap<number, Named> = (() => {
  const names = new Map<number, Named>();
  const sets = SUFFIXES.flatMap((suffix) => {
    const reading = readChord(`C${suffix}`);
    return reading.kind === 'chord' ? [{ suffix, set: reading.chord.pitchSet }] : [];
  });
  for (const { suffix, set } of sets) if (!names.has(set)) names.set(set, { suffix, isWhole: true });
  for (const { suffix, set } of sets) {
    const without = set & ~(1 << LEFT_OUT);
    // A seventh chord is known without its fifth; a triad is not.
    if (without !== set && tonesIn(without) >= 3 && !names.has(without))
      names.set(without, { suffix, isWhole: false });
  }
  return names;
})();

function tonesIn(set: number): number {
  let count = 0;
  for (let rest = set; rest; rest &= rest - 1) count++;
  return count;
}

/** The set as it is counted from a root: bit n for n semitones over it. */
const over = (set: number, root: PitchClass) => ((set >> root) | (set << (12 - root))) & 0xfff;

/**
 * The symbol of the chord that some notes are; null where they are none that has a name.
 * @param midis MIDI numbers, in any order
 * @param nameOf how a pitch class is spelled as a root
 */
export function nameOfNotes(
  midis: readonly number[],
  nameOf: (pc: PitchClass) => string = plainName
): string | null {
  if (midis.length === 0) return null;
  const set = midis.reduce((all, midi) => all | (1 << (midi % 12)), 0);
  const bass = Math.min(...midis) % 12;
  const named = Array.from({ length: 12 }, (_, up) => (bass + up) % 12)
    .filter((root) => set & (1 << root))
    .flatMap((root) => {
      const name = NAMES.get(over(set, root));
      return name ? [{ root, ...name }] : [];
    });
  const called = ({ root, suffix }: { readonly root: PitchClass; readonly suffix: string }) =>
    nameOf(root) + suffix + (root === bass ? '' : `/${nameOf(bass)}`);
  // Roots are tried from the bass up: a whole chord on it, or over it, goes before one on it that lacks its fifth (C E A is Am/C).
  const best = named.find(({ isWhole }) => isWhole) ?? named.find(({ root }) => root === bass);
  if (best) return called(best);
  // A foreign bass under a whole chord: Am/D.
  const above = set & ~(1 << bass);
  const root = Array.from({ length: 12 }, (_, pc) => pc).find(
    (pc) => above & (1 << pc) && NAMES.get(over(above, pc))?.isWhole
  );
  if (root !== undefined) return called({ root, suffix: NAMES.get(over(above, root))!.suffix });
  return named[0] ? called(named[0]) : null;
}
