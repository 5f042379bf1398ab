/**
 * Root-string units: grip, arpeggio and one octave of the scale round one root, so that seeing one shows the others.
 * Source: docs/music-rules.md, The neck.
 */
import { nth, sure } from '../base/list';
import type { StringNumber } from '../base/units';
import { withTones, type Chord } from '../theory/chord';
import { DEGREES, type Degree } from '../theory/degree';
import { pitchClass, type NoteName, type PitchClass } from '../theory/note';
import { fingerGrip } from './fingering';
import { positionFill } from './position';
import { nameOf, namingOf, type NamedCell } from './shape';
import { lowestFret, type Instrument } from './tuning';
import { voicedTones } from './voicing';

export interface Unit {
  readonly rootString: StringNumber;
  /** The fret of the root on that string. */
  readonly anchor: number;
  readonly position: number;
  /** From the bass up; empty where the tuning has no such grip in reach. */
  readonly grip: readonly NamedCell[];
  /** One octave from the root. */
  readonly arpeggio: readonly NamedCell[];
  /** One octave from the root. */
  readonly scale: readonly NamedCell[];
  /** Tones of the chord that the region does not have within the octave. */
  readonly lacks: readonly Degree[];
}

/** The strings a unit's root lies on; on necks with fewer strings those of them that are there. */
const ROOT_STRINGS = [6, 5, 4] as const;
/** The grip of a root string: which tones (0 the root, then third, fifth, seventh) and how many strings above the root's. */
const GRIPS: Readonly<Record<number, { tones: readonly number[]; above: readonly number[] }>> = {
  6: { tones: [0, 3, 1, 2], above: [0, 2, 3, 4] },
  5: { tones: [0, 2, 3, 1], above: [0, 1, 2, 3] },
  4: { tones: [0, 2, 3, 1], above: [0, 1, 2, 3] }
};
/** Frets from the lowest to the highest finger of a grip, less one. */
const WIDEST = 5;

/** All units of a chord, root strings 6, 5, 4 in turn, each from the first fret up. `notes` are the scale's. */
export function unitsOf(neck: Instrument, chord: Chord, notes: readonly NoteName[]): Unit[] {
  const root = pitchClass(chord.root);
  return ROOT_STRINGS.filter((string) => string <= neck.strings.length).flatMap((rootString) => {
    const open = nth(neck.strings, rootString - 1);
    const first = lowestFret(neck);
    return Array.from({ length: neck.frets - first + 1 }, (_, i) => first + i)
      .filter((fret) => (open + fret) % 12 === root)
      .map((fret) => unitAt(neck, chord, notes, rootString, fret))
      .filter((unit) => unit !== null);
  });
}

/** The lowest unit of each root string that has its grip; where the tuning gives it none, the lowest all the same. */
export function lowestUnits(units: readonly Unit[]): Unit[] {
  return ROOT_STRINGS.flatMap((string) => {
    const own = units.filter(({ rootString }) => rootString === string);
    const found = own.find(({ grip }) => grip.length > 0) ?? own[0];
    return found ? [found] : [];
  });
}

function unitAt(
  neck: Instrument,
  chord: Chord,
  notes: readonly NoteName[],
  rootString: StringNumber,
  anchor: number
): Unit | null {
  const naming = namingOf(chord, { notes });
  const grip = gripAt(neck, chord, rootString, anchor);
  const pressed = grip.filter(({ fret }) => fret > neck.capo).map(({ fret }) => fret);
  const lowest = Math.max(neck.capo, Math.min(anchor, ...(pressed.length ? pressed : [anchor])));
  const from = nth(neck.strings, rootString - 1) + anchor;
  const octave = (pcs: Iterable<PitchClass>, position: number) =>
    positionFill(neck, pcs, position)
      .filter(({ midi }) => midi >= from && midi <= from + 12)
      .sort((a, b) => a.midi - b.midi)
      .map((cell): NamedCell => ({ ...cell, ...nameOf(cell.midi % 12, naming) }));
  const lacksAt = (position: number) => {
    const held = new Set(octave(chord.pitchClasses, position).map(({ midi }) => midi % 12));
    return chord.tones.filter((_, i) => !held.has(nth(chord.pitchClasses, i)));
  };
  // A lowered string takes its notes up the neck: the hand goes up from the grip until its region has the chord.
  const position = Array.from({ length: anchor - lowest + 1 }, (_, i) => lowest + i).reduce((best, at) =>
    lacksAt(at).length < lacksAt(best).length ? at : best
  );
  const arpeggio = octave(chord.pitchClasses, position);
  // A unit that the last fret cuts off is none.
  if (arpeggio.at(-1)?.midi !== from + 12) return null;
  const scale = octave(notes.map(pitchClass), position);
  return { rootString, anchor, position, grip, arpeggio, scale, lacks: lacksAt(position) };
}

/** A triad has its octave where a fuller chord has its seventh. */
function gripAt(neck: Instrument, chord: Chord, rootString: StringNumber, anchor: number): NamedCell[] {
  const { tones: order, above } = sure(GRIPS[rootString], 'GRIPS');
  const tones = voicedTones(chord, 4) ?? voicedTones(chord, 3);
  if (!tones) return [];
  const heights = tones.map((tone) => DEGREES[tone].semitones);
  const root = nth(neck.strings, rootString - 1) + anchor;
  let below = root - 1;
  const spots = order.map((tone, i) => {
    const string = rootString - nth(above, i);
    let midi = root + (heights[tone] ?? 0);
    while (midi <= below) midi += 12;
    below = midi;
    return { string, fret: midi - (neck.strings[string - 1] ?? Infinity), midi };
  });
  const pressed = spots.map(({ fret }) => fret).filter((fret) => fret !== neck.capo);
  const isOnNeck = spots.every(
    ({ string, fret }) => string >= 1 && fret >= lowestFret(neck) && fret <= neck.frets
  );
  if (!isOnNeck || Math.max(...pressed) - Math.min(...pressed) > WIDEST) return [];
  const naming = namingOf(withTones(chord, tones), null);
  return (fingerGrip(spots, neck.capo) ?? []).map((cell) => ({
    ...cell,
    stretch: false,
    ...nameOf(cell.midi % 12, naming)
  }));
}
