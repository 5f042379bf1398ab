/** How a tonic is named: by the signature its key would have. Source: docs/music-rules.md, Keys. */
import { MODES, type Mode } from './mode';
import { pitchClass, plainName, type NoteName, type PitchClass } from './note';

/** A key as far as its names go. */
export interface Home {
  readonly tonic: NoteName;
  readonly mode: Mode;
}

/** Sharps (above nought) or flats (below) that a key has, however many. */
export function sharpsOf({ tonic, mode }: Home): number {
  const letter = 'FCGDAEB'.indexOf(tonic.charAt(0)) - 1;
  const altered = [...tonic.slice(1)].reduce((sum, sign) => sum + (sign === '#' ? 7 : -7), 0);
  return letter + altered + MODES[mode].sharps;
}

/** Names by which a black key goes. */
const NEIGHBOURS: Readonly<Record<NoteName, NoteName>> = {
  Db: 'C#',
  Eb: 'D#',
  'F#': 'Gb',
  Ab: 'G#',
  Bb: 'A#'
};

/**
 * The tonic on a pitch class for a mode: the name whose key has fewer accidentals (D♭ major, but C♯ minor). Of two with as many
 * the one on the side of `from`, flats or sharps, is taken, so that a flat key stays among flats.
 */
export function tonicOn(pc: PitchClass, mode: Mode, from: Home): NoteName {
  const plain = plainName(pc);
  const other = NEIGHBOURS[plain];
  if (!other) return plain;
  const [own, others] = [sharpsOf({ tonic: plain, mode }), sharpsOf({ tonic: other, mode })];
  if (Math.abs(own) !== Math.abs(others)) return Math.abs(own) < Math.abs(others) ? plain : other;
  return Math.sign(others) === Math.sign(sharpsOf(from)) ? other : plain;
}

/** A key so many semitones up. */
export function homeUp(home: Home, semitones: number): Home {
  if (semitones % 12 === 0) return home;
  const { tonic, mode } = home;
  return { tonic: tonicOn((pitchClass(tonic) + semitones + 120) % 12, mode, home), mode };
}
