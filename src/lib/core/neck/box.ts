/**
 * Pentatonic boxes: two notes a string, numbered by the note of the pentatonic that the lowest string starts on.
 * Source: docs/music-rules.md, The neck.
 */
import { lastOf, nth } from '../base/list';
import type { Fret } from '../base/units';
import { pitchClass, type NoteName, type PitchClass } from '../theory/note';
import { lowestFret, type Instrument, type Spot } from './tuning';

/** Semitones of the minor pentatonic above its root, and of the note that makes it a blues scale. */
const MINOR_STEPS = [0, 3, 5, 7, 10] as const;
const BLUE_NOTE = 6;
/**
 * Pentatonics with one note altered, by their semitones above their own root, keep the boxes of the plain one: the
 * dominant pentatonic those of the major pentatonic, its ♭7 standing where the 6 was; the minor six pentatonic those of
 * the minor one. `first` is the note that box 1 of the minor numbering starts on.
 */
const ALTERED: Readonly<Record<string, { readonly first: number; readonly steps: readonly number[] }>> = {
  '0 2 4 7 10': { first: 10, steps: [0, 2, 4, 6, 9] },
  '0 3 5 7 9': { first: 0, steps: [0, 3, 5, 7, 9] }
};
const BOXES = MINOR_STEPS.length;
const NOTES_A_STRING = 2;

/** The open major chord form whose root lies in the box of that number, counted from the root's own pentatonic. */
const FORMS = ['E', 'D', 'C', 'A', 'G'] as const;
/** The string that the E form has its lowest root on. */
const FORM_STRING = 6;
export type ChordForm = (typeof FORMS)[number];

export interface Box {
  /** 1–5, counted from the minor root. */
  readonly minor: number;
  /** 1–5, counted from the major root: minor 1 is major 5, minor 2 is major 1. */
  readonly major: number;
  /** The minor number it has counted from string 6, which the chord forms stand on; another than `minor` where lower strings are added. */
  readonly onSixth: number;
  /** Its fret on the lowest string. */
  readonly anchor: number;
  /** Lowest pitch first; fewer than two a string where nut, capo or last fret cut the box. */
  readonly cells: readonly Spot[];
}

/** The pentatonic that a collection is, or is with blue notes added: what its boxes are counted from. */
export interface Pentatonic {
  /** The note that box 1 of the minor numbering starts on: the minor root, or what stands for it. */
  readonly first: PitchClass;
  /** Its notes in semitones above that one. */
  readonly steps: readonly number[];
  /** Pitch classes that are not the pentatonic's own. */
  readonly added: readonly PitchClass[];
}

/** The minor pentatonic on a root. */
export function minorPentatonic(minorRoot: PitchClass): Pentatonic {
  return { first: minorRoot, steps: MINOR_STEPS, added: [] };
}

/** Finds the pentatonic a collection is made of; null where it has no boxes. */
export function pentatonicOf(root: NoteName, notes: readonly NoteName[]): Pentatonic | null {
  const held = new Set(notes.map(pitchClass));
  const isHeld = (from: PitchClass, semitones: number) => held.has((from + semitones) % 12);
  for (const minorRoot of held) {
    if (!MINOR_STEPS.every((semitones) => isHeld(minorRoot, semitones))) continue;
    if (held.size === BOXES) return minorPentatonic(minorRoot);
    if (held.size === BOXES + 1 && isHeld(minorRoot, BLUE_NOTE)) {
      return { ...minorPentatonic(minorRoot), added: [(minorRoot + BLUE_NOTE) % 12] };
    }
  }
  const own = pitchClass(root);
  const heights = [...held].map((pc) => (pc - own + 12) % 12).sort((a, b) => a - b);
  const altered = ALTERED[heights.join(' ')];
  return altered ? { first: (own + altered.first) % 12, steps: altered.steps, added: [] } : null;
}

/** The minor root of the pentatonic of a key or chord: its own root if minor, else a minor third below. */
export function relativeMinor(root: PitchClass, quality: 'major' | 'minor'): PitchClass {
  return quality === 'minor' ? root : (root + 9) % 12;
}

/** Minor 1 is major 5, minor 2 is major 1. */
function majorNumber(minor: number): number {
  return minor === 1 ? BOXES : minor - 1;
}

/** All boxes of a pentatonic on the neck, lowest anchor first. */
export function boxesOf(neck: Instrument, { first, steps }: Pentatonic): Box[] {
  const nut = lowestFret(neck);
  const lowest = lastOf(neck.strings);
  return Array.from({ length: neck.frets - nut + 1 }, (_, i) => nut + i).flatMap((anchor): Box[] => {
    const at = steps.findIndex((semitones) => (first + semitones - lowest - anchor) % 12 === 0);
    if (at < 0) return [];
    const minor = at + 1;
    const below = Math.max(0, neck.strings.length - FORM_STRING);
    const onSixth = ((at + NOTES_A_STRING * below) % BOXES) + 1;
    const cells = lay(neck, steps, lowest + anchor, at);
    return [{ minor, major: majorNumber(minor), onSixth, anchor, cells }];
  });
}

/** Lays a pentatonic out from a pitch of the lowest string upward, two notes a string, without a gap. */
function lay(neck: Instrument, steps: readonly number[], from: number, at: number): Spot[] {
  const pitch = (n: number) =>
    from + 12 * Math.floor((at + n) / BOXES) + nth(steps, (at + n) % BOXES) - nth(steps, at);
  return Array.from({ length: neck.strings.length * NOTES_A_STRING }, (_, n): Spot => {
    const string = neck.strings.length - Math.floor(n / NOTES_A_STRING);
    return { string, fret: pitch(n) - nth(neck.strings, string - 1), midi: pitch(n) };
  }).filter(({ fret }) => fret >= lowestFret(neck) && fret <= neck.frets);
}

/** The item whose anchor lies nearest a fret, the lower one if two are as near; undefined where there is none. */
export function nearestTo<T extends { readonly anchor: number }>(
  items: readonly T[],
  fret: Fret
): T | undefined {
  return [...items].sort(
    (a, b) => Math.abs(a.anchor - fret) - Math.abs(b.anchor - fret) || a.anchor - b.anchor
  )[0];
}

/** The chord form whose area a box lies in, for a root that the pentatonic is the major or the minor one of. */
export function formOf(box: Box, quality: 'major' | 'minor'): ChordForm {
  return nth(FORMS, (quality === 'minor' ? box.onSixth : majorNumber(box.onSixth)) - 1);
}
