/**
 * Pentatonic boxes: two notes a string, numbered by the note of the pentatonic that the lowest string starts on.
 * Source: The neck, in the music rules.
 */
import { pitchClass, type NoteName, type PitchClass } from '../theory/note';
import { lowestFret, type Instrument, type Spot } from './tuning';

/** Semitones of the minor pentatonic above its root, and of the note that makes it a blues scale. */
const MINOR_PENTATONIC = [0, 3, 5, 7, 10] as const;
const BLUE_NOTE = 6;
const BOXES = MINOR_PENTATONIC.length;
const NOTES_A_STRING = 2;

/** The open major chord form whose root lies in the box of that number, counted from the root's own pentatonic. */
const FORMS = ['E', 'D', 'C', 'A', 'G'] as const;
export type ChordForm = (typeof FORMS)[number];

export interface Box {
  /** 1–5, counted from the minor root. */
  readonly minor: number;
  /** 1–5, counted from the major root: minor 1 is major 5, minor 2 is major 1. */
  readonly major: number;
  /** Its fret on the lowest string. */
  readonly anchor: number;
  /** Lowest pitch first; fewer than two a string where nut, capo or last fret cut the box. */
  readonly cells: readonly Spot[];
}

/** The pentatonic that a collection is, or is with blue notes added: what its boxes are counted from. */
export interface Pentatonic {
  readonly minorRoot: PitchClass;
  /** Pitch classes that are not the pentatonic's own. */
  readonly added: readonly PitchClass[];
}

/** Finds the pentatonic a collection is made of; null where it has no boxes. */
export function pentatonicOf(notes: readonly NoteName[]): Pentatonic | null {
  const held = new Set(notes.map(pitchClass));
  const isHeld = (root: PitchClass, semitones: number) => held.has((root + semitones) % 12);
  for (const minorRoot of held) {
    if (!MINOR_PENTATONIC.every((semitones) => isHeld(minorRoot, semitones))) continue;
    if (held.size === BOXES) return { minorRoot, added: [] };
    if (held.size === BOXES + 1 && isHeld(minorRoot, BLUE_NOTE)) {
      return { minorRoot, added: [(minorRoot + BLUE_NOTE) % 12] };
    }
  }
  return null;
}

/** The minor root of the pentatonic of a key or chord: its own root if minor, else a minor third below. */
export function relativeMinor(root: PitchClass, quality: 'major' | 'minor'): PitchClass {
  return quality === 'minor' ? root : (root + 9) % 12;
}

/** All boxes of a minor pentatonic on the neck, lowest anchor first. */
export function boxesOf(neck: Instrument, minorRoot: PitchClass): Box[] {
  const first = lowestFret(neck);
  const lowest = neck.strings.at(-1)!;
  return Array.from({ length: neck.frets - first + 1 }, (_, i) => first + i).flatMap((anchor): Box[] => {
    const at = MINOR_PENTATONIC.findIndex(
      (semitones) => (minorRoot + semitones - lowest - anchor) % 12 === 0
    );
    if (at < 0) return [];
    const minor = at + 1;
    return [{ minor, major: minor === 1 ? BOXES : minor - 1, anchor, cells: lay(neck, lowest + anchor, at) }];
  });
}

/** Lays the pentatonic out from a pitch of the lowest string upward, two notes a string, without a gap. */
function lay(neck: Instrument, from: number, at: number): Spot[] {
  const pitch = (n: number) =>
    from + 12 * Math.floor((at + n) / BOXES) + MINOR_PENTATONIC[(at + n) % BOXES]! - MINOR_PENTATONIC[at]!;
  return Array.from({ length: neck.strings.length * NOTES_A_STRING }, (_, n): Spot => {
    const string = neck.strings.length - Math.floor(n / NOTES_A_STRING);
    return { string, fret: pitch(n) - neck.strings[string - 1]!, midi: pitch(n) };
  }).filter(({ fret }) => fret >= lowestFret(neck) && fret <= neck.frets);
}

/** The item whose anchor lies nearest a fret, the lower one if two are as near; undefined where there is none. */
export function nearestTo<T extends { readonly anchor: number }>(
  items: readonly T[],
  fret: number
): T | undefined {
  return [...items].sort(
    (a, b) => Math.abs(a.anchor - fret) - Math.abs(b.anchor - fret) || a.anchor - b.anchor
  )[0];
}

/** The chord form whose area a box lies in, for a root that the pentatonic is the major or the minor one of. */
export function formOf(box: Box, quality: 'major' | 'minor'): ChordForm {
  return FORMS[box[quality] - 1]!;
}
