/** Chords as they are heard in a progression: what leads as a dominant, and slash chords that are suspended dominants. */
import { sure } from '../base/list';
import { DEGREES } from '../theory/degree';
import { type Chord } from '../theory/chord';
import { oncePer } from '../base/once';
import { readChord } from '../theory/chord-reader';
import { pitchClass, semitonesUp } from '../theory/note';

/**
 * A chord over a bass that makes it a suspended dominant is heard as that: F/G, Dm7/G and Fmaj7/G as G9sus4 or G13sus4. Every
 * other chord is heard as written.
 */
export function heardAs(chord: Chord): Chord {
  return chord.bass === undefined ? chord : overBass(chord);
}

const overBass = oncePer((chord: Chord) => suspendedDominant(chord, sure(chord.bass, 'a bass')) ?? chord);

function suspendedDominant(chord: Chord, bass: string): Chord | null {
  const root = pitchClass(bass);
  if (chord.pitchClasses.includes(root)) return null;
  const above = chord.pitchClasses.map((pc) => semitonesUp(root, pc));
  const has = (...semitones: number[]) => semitones.every((s) => above.includes(s));
  const deniesIt = [3, 4, 6, 11].some((s) => has(s));
  if (deniesIt || !has(10) || !(has(5) || has(7, 2))) return null;
  const reading = readChord(`${bass}${has(1) ? '7sus4b9' : has(9) ? '13sus4' : '9sus4'}`);
  return reading.kind === 'chord' ? reading.chord : null;
}

const isPlain = ({ tones }: Chord) => tones.every((tone) => DEGREES[tone].slot !== '7' && tone !== '6');

/** A dominant seventh, suspended or not. */
export function isFive(chord: Chord): boolean {
  return chord.family === 'dominant';
}

/** A triad that can be a dominant: major, augmented or suspended, with nothing that says otherwise. */
export function isTriadFive(chord: Chord): boolean {
  return (
    isPlain(chord) &&
    (chord.family === 'major' ||
      chord.family === 'augmented' ||
      (chord.family === 'suspended' && chord.tones.includes('11')))
  );
}

/** A chord that can be the ii of a V: minor without a major seventh, or half-diminished. */
export function isTwo(chord: Chord): boolean {
  return (chord.family === 'minor' && !chord.tones.includes('7')) || chord.family === 'half-diminished';
}
