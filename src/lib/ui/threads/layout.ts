/** Where things stand in the Threads drawing: time left to right in true proportion, pitch bottom to top. */

import { nth } from '$lib/core/base/list';

/** The straight map that takes one pair of numbers to another. */
function linear([a, b]: readonly [number, number], [from, to]: readonly [number, number]) {
  const slope = (to - from) / (b - a || 1);
  return (value: number) => from + (value - a) * slope;
}

export interface Column {
  readonly index: number;
  readonly x: number;
  readonly width: number;
}

/** The drawing from left to right; it stays as it is while the hand or a target moves. */
export interface Timeline {
  readonly width: number;
  readonly columns: readonly Column[];
  /** x of a beat of the form. */
  readonly time: (beat: number) => number;
}

export interface ThreadsLayout extends Timeline {
  /** y of a MIDI pitch. */
  readonly pitch: (midi: number) => number;
}

/** Height of the drawing where the page has no more room. */
export const THREADS = 214;
export const HEAD = 46;
const FOOT = 18;
/** The narrowest a change may get, in pixels; a wider chart scrolls. */
const NARROWEST = 62;
/** The same in a wide window that then has the whole form in it: seen at once it is worth the squeeze. */
const SQUEEZED = 44;
const WIDE = 1200;
/** Where in its column a tone stands: next to the moment of change. */
export const TONE_INSET = 20;

export function layOutTime(
  changes: readonly { readonly start: number; readonly beats: number }[],
  beats: number,
  available: number
): Timeline {
  const shortest = changes.reduce((least, change) => Math.min(least, change.beats), beats || 1);
  const shares = beats / Math.max(shortest, 0.25);
  const narrowest = available >= WIDE && shares * SQUEEZED <= available ? SQUEEZED : NARROWEST;
  const width = Math.max(available, shares * narrowest);
  const time = linear([0, Math.max(beats, 1)], [0, width]);
  return {
    width,
    columns: changes.map(({ start, beats: length }, index) => ({
      index,
      x: time(start),
      width: time(length)
    })),
    time
  };
}

/** Semitones by which the lowest and the highest pitch of the drawing move. */
const PITCH_STEP = 3;

/**
 * The lowest and the highest MIDI pitch of a drawing that some pitches have to be in. They move by steps: while the hand goes
 * from fret to fret most notes stay where the eye has them.
 */
export function pitchEnds(pitches: Iterable<number>): readonly [number, number] {
  let [low, high] = [Infinity, -Infinity];
  for (const midi of pitches) {
    low = Math.min(low, midi);
    high = Math.max(high, midi);
  }
  if (low > high) return [0, 1];
  const bottom = stepped(low - 1, Math.floor);
  // With room for a step, so that the top moves with the bottom and not on its own.
  return [bottom, bottom + stepped(high - low + 1 + PITCH_STEP, Math.ceil)];
}

const stepped = (semitones: number, round: (n: number) => number) =>
  round(semitones / PITCH_STEP) * PITCH_STEP;

/** y of a MIDI pitch between the ends of a drawing. */
export function layOutPitch(ends: readonly [number, number], height: number): (midi: number) => number {
  return linear(ends, [height - FOOT, HEAD + 10]);
}

/**
 * By what each tone under the hand stays itself while the hand moves: the string it lies on, and which one on it. A tone that
 * stays is not touched then, and one that comes takes the place of one that goes.
 */
export function placesOf(tones: readonly { readonly string: number }[]): string[] {
  const count = new Map<number, number>();
  return tones.map(({ string }) => {
    const nth = count.get(string) ?? 0;
    count.set(string, nth + 1);
    return `${string}.${nth}`;
  });
}

/** "+1", "−2" or "stays": how far a thread moves. */
export function stepWords(semitones: number): string {
  if (semitones === 0) return 'stays';
  return semitones > 0 ? `+${semitones}` : `−${-semitones}`;
}

/** A thread that holds each pitch through its change and bends to the next one just before it comes. */
export function threadLine(points: readonly { x: number; end: number; y: number }[]): string {
  const bend = 34;
  return points
    .map(({ x, end, y }, i) => {
      const next = points[i + 1];
      const start = i === 0 ? `M${x} ${y}` : '';
      if (!next) return `${start}L${end} ${y}`;
      const from = Math.max(x, Math.min(end, next.x) - bend);
      const middle = (from + next.x) / 2;
      return `${start}L${from} ${y}C${middle} ${y} ${middle} ${next.y} ${next.x} ${next.y}`;
    })
    .join('');
}

/** How far tones stand aside, in pixels, in the order in which places are tried. */
const ASIDE = [0, 15, 30];
/** Half the room that a tone and the target take; they may touch. */
const TONE_ROOM = 7.75;
const TARGET_ROOM = 10.5;

/** Where a tone of a column stands. */
export interface LaidTone<Tone> {
  readonly tone: Tone;
  /** By what it stays itself while the hand moves. */
  readonly place: string;
  /** Pixels to the right of the moment of change. */
  readonly aside: number;
  readonly y: number;
}

/** The tones of one column, low to high, where none covers another or the target. */
export function layOutTones<Tone extends { readonly midi: number; readonly string: number }>(
  tones: readonly Tone[],
  target: number | undefined,
  pitch: (midi: number) => number
): LaidTone<Tone>[] {
  const places = placesOf(tones);
  const asides = standAside(
    tones.map(({ midi }) => midi),
    target,
    pitch
  );
  return tones.map((tone, i) => ({
    tone,
    place: nth(places, i),
    aside: nth(asides, i),
    y: pitch(tone.midi)
  }));
}

/** How far each of some pitches, low to high, stands aside so that none covers its neighbour or the target. */
export function standAside(
  midis: readonly number[],
  target: number | undefined,
  pitch: (midi: number) => number
): number[] {
  const placed = target === undefined ? [] : [{ x: 0, y: pitch(target), room: TARGET_ROOM }];
  return midis.map((midi) => {
    if (midi === target) return 0;
    const y = pitch(midi);
    const isFree = (x: number) =>
      placed.every((other) => Math.hypot(other.x - x, other.y - y) >= other.room + TONE_ROOM);
    const x = ASIDE.find(isFree) ?? nth(ASIDE, 1);
    placed.push({ x, y, room: TONE_ROOM });
    return x;
  });
}
