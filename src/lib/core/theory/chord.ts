/** A chord: its root, its tones as degrees, and what follows from them, worked out once when it is read. */
import { DEGREES, type Degree } from './degree';
import { pitchClass, spell, type NoteName, type PitchClass } from './note';

export type ChordFamily =
  | 'major'
  | 'minor'
  | 'dominant'
  | 'half-diminished'
  | 'diminished'
  | 'augmented'
  | 'suspended'
  | 'power';

/** What a symbol says. */
interface ChordFacts {
  /** As typed, without surrounding space. */
  readonly symbol: string;
  readonly root: NoteName;
  /** The slash bass; never part of `tones` unless the chord has it anyway. */
  readonly bass?: NoteName;
  /** The tones in the order 1, 3 (or what suspends it), 5, 6 or 7, then the extensions upward. */
  readonly tones: readonly Degree[];
  /** The part between root and bass, as typed: "m7b5". */
  readonly suffix: string;
}

export interface Chord extends ChordFacts {
  /** Pitch class of the root. */
  readonly rootPc: PitchClass;
  /** The pitch class of each tone, in the order of the tones. */
  readonly pitchClasses: readonly PitchClass[];
  /** The same as a set: bit n stands for pitch class n. */
  readonly pitchSet: number;
  /** The tones spelled from the root, in their order. */
  readonly notes: readonly NoteName[];
  /** Decides the scales that suit the chord. */
  readonly family: ChordFamily;
}

/** A chord from what its symbol says. */
export function chordOf(facts: ChordFacts): Chord {
  const rootPc = pitchClass(facts.root);
  const pitchClasses = facts.tones.map((tone) => (rootPc + DEGREES[tone].semitones) % 12);
  return {
    ...facts,
    rootPc,
    pitchClasses,
    pitchSet: pitchClasses.reduce((set, pc) => set | (1 << pc), 0),
    notes: facts.tones.map((tone) => spell(facts.root, tone)),
    family: familyOf(facts.tones)
  };
}

/** The same chord with fewer or other tones. */
export function withTones(chord: Chord, tones: readonly Degree[]): Chord {
  return chordOf({ ...chord, tones });
}

function familyOf(tones: readonly Degree[]): ChordFamily {
  const has = (tone: Degree) => tones.includes(tone);
  if (has('b3')) {
    if (has('b5') && !has('5')) return has('b7') ? 'half-diminished' : 'diminished';
    return 'minor';
  }
  if (has('b7')) return 'dominant';
  if (has('3')) return has('#5') && !has('5') ? 'augmented' : 'major';
  return has('11') || has('9') ? 'suspended' : 'power';
}
