/** The places under a hand, one for each pitch, and where the hand goes for a phrase. */
import { lastOf } from '../../base/list';
import type { Fret, Midi, StringNumber } from '../../base/units';
import { spots, type Instrument, type Spot } from '../../neck/tuning';
import type { LineArea } from '../find/pool';
import type { LineNote } from '../model';
import { frettedPitch } from '../place';

/** Frets of a phrase: one below the position to four above it. */
const BELOW = 1;
const ABOVE = 4;
/** Frets that need no stretch, from the position on. */
const PLAIN = 3;
/** How far the hand may go up or down for a phrase, from where its middle would lie, in frets. */
const HANDS = [0, -3, 3] as const;
const UPPER_STRINGS = 4;

/** The mean pitch of the four upper strings, which tells an instrument's register. */
export function upperMean({ strings }: Instrument): number {
  const upper = strings.slice(0, UPPER_STRINGS);
  return upper.reduce((sum, midi) => sum + midi, 0) / upper.length;
}

/** Of a guitar in standard tuning. */
const GUITAR = 57;

/** How much higher an instrument sounds than a guitar in standard tuning, in semitones. */
export const registerOf = (neck: Instrument): number => upperMean(neck) - GUITAR;

/** Where the middle of the upper strings lies in a position. */
export const middleIn = (neck: Instrument, position: number): number => upperMean(neck) + 1 + position;

/** The lowest position of the hand. */
export const lowestHand = ({ capo }: Instrument): number => capo + 1;
/** The highest position from which the hand still reaches as far as it may. */
export const highestHand = ({ frets }: Instrument): number => Math.max(1, frets - ABOVE);

const bounded = (neck: Instrument, position: number) =>
  Math.max(lowestHand(neck), Math.min(highestHand(neck), Math.round(position)));

/** A note that must be played at a place. */
export interface Held {
  readonly midi: Midi;
  readonly string: StringNumber;
  readonly fret: Fret;
}

/** The positions to try for a phrase that wishes to lie round a pitch; the plainest first. */
export function handsFor(
  neck: Instrument,
  { centre, area, held }: { readonly centre: number; readonly area: LineArea; readonly held: readonly Held[] }
): number[] {
  if (area.position !== undefined) return [area.position];
  const wished = centre - upperMean(neck) - 1;
  const frets = held.map(({ fret }) => fret).filter((fret) => fret > neck.capo);
  const [low, high] = [Math.max(...frets) - ABOVE, Math.min(...frets) + BELOW];
  if (frets.length > 0 && low <= high) {
    const near = Math.min(high, Math.max(low, Math.round(wished)));
    return [bounded(neck, near)];
  }
  const inWindow = (position: number) =>
    area.window
      ? Math.min(Math.max(position, area.window.from), Math.max(area.window.from, area.window.to - PLAIN))
      : position;
  return [...new Set(HANDS.map((by) => bounded(neck, inWindow(wished + by))))];
}

/** The places under a hand, one for each pitch, from the lowest up. What is held lies where it is held. */
export function placesUnder(
  neck: Instrument,
  position: number,
  { window, range, strings }: LineArea,
  held: readonly Held[]
): Spot[] {
  const from = Math.max(neck.capo, position - BELOW);
  const best = new Map<number, Spot>();
  const strain = ({ string, fret }: Spot) =>
    (fret >= position && fret <= position + PLAIN ? 0 : 2) + Math.abs(string - 2.5) / 10;
  for (const spot of spots(neck, from, position + ABOVE)) {
    const { midi, string, fret } = spot;
    if (window && (fret < window.from || fret > window.to)) continue;
    if (range && (midi < range.low || midi > range.high)) continue;
    if (strings && !strings.includes(string)) continue;
    const other = best.get(midi);
    if (!other || strain(spot) < strain(other)) best.set(midi, spot);
  }
  for (const { midi, string, fret } of held) best.set(midi, { midi, string, fret });
  return [...best.values()].sort((a, b) => a.midi - b.midi);
}

/** A bend wants a fret below it. */
const LOWEST_BEND = 2;

/**
 * Notes under one hand, a place for each pitch and two at once on two strings; a slur or a slide stays where both of its notes lie on one
 * string. Null where a note is out of reach.
 */
export function laidUnder(
  notes: readonly LineNote[],
  position: number,
  neck: Instrument
): readonly LineNote[] | null {
  const places = placesUnder(neck, position, {}, []);
  const all = spots(neck, Math.max(neck.capo, position - BELOW), position + ABOVE);
  const placed: LineNote[] = [];
  for (const note of notes) {
    // Of two at once each has a string of its own: where the second finds none, the first looks for another.
    const first = placed.at(-1)?.start === note.start ? lastOf(placed) : null;
    const on = (midi: Midi, not: number | undefined) =>
      [...places, ...all].find((spot) => spot.midi === midi && spot.string !== not);
    let spot = on(frettedPitch(note), first?.place?.string);
    if (!spot && first) {
      const other = on(frettedPitch(first), first.place?.string);
      spot = other && on(frettedPitch(note), other.string);
      if (other) placed[placed.length - 1] = { ...first, place: { string: other.string, fret: other.fret } };
    }
    const before = placed.at(-1);
    if (!spot || (note.bend && !note.bend.cents && spot.fret < LOWEST_BEND)) return null;
    const { slur, slide, ...struck } = note;
    const isJoined = before?.place?.string === spot.string;
    placed.push({
      ...struck,
      ...(slur && isJoined ? { slur } : {}),
      ...(slide && isJoined ? { slide } : {}),
      place: { string: spot.string, fret: spot.fret }
    });
  }
  return placed;
}
