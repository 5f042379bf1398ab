/** What a hand does to a sounding note, as pitch bends of a MIDI channel: bends, releases, curls, slides, vibrato. */
import type { LineNote } from '../../line/model';
import type { Timed } from './file';

/** Semitones that the wheel reaches to either side, as it is set at the start of a track. */
export const BEND_RANGE = 12;
const WHEEL = 8192;

/** A moment of a bent note: ticks after its start, and cents from the pitch that was struck. */
export interface BentAt {
  readonly after: number;
  readonly cents: number;
}

/** Parts of a note, and of a quarter at most, that a bend and a slide take. */
const BENDING = 0.4;
const LONGEST_BEND = 0.5;
const SLIDING = 0.15;
const CURLS_FROM = 0.35;
/** Steps of a glide. */
const STEPS = 8;
/** Of vibrato: cents to either side, shakes of a quarter, and the part of the note before they begin. */
const SHAKEN = 22;
const SHAKES = 3;
const SHAKES_AFTER = 0.35;

/** The value of a MIDI pitch bend for so many cents up or down. */
export const bendValue = (cents: number): number =>
  Math.max(-WHEEL, Math.min(WHEEL - 1, Math.round((cents / 100 / BEND_RANGE) * WHEEL)));

/** Cents of a wheel. */
export const centsOf = (value: number, range: number): number => (value / WHEEL) * range * 100;

/** Sets how far the wheel reaches. */
export function bendRange(channel: number): Timed[] {
  const control = (controllerType: number, value: number): Timed => ({
    tick: 0,
    event: { type: 'controller', channel, controllerType, value }
  });
  return [control(101, 0), control(100, 0), control(6, BEND_RANGE), control(38, 0)];
}

/** The bends of a note; nothing where it is only struck. It begins and ends with the wheel at rest. */
export function bentOver(
  { length, midi, bend, release, slide, vibrato, ghost }: LineNote,
  before: LineNote | undefined,
  quarter: number
): BentAt[] {
  if (ghost) return [];
  const points: BentAt[] = [];
  const glide = (from: number, to: number, begin: number, lasts: number) => {
    for (let i = 0; i <= STEPS; i++)
      points.push({
        after: Math.round(begin + (lasts * i) / STEPS),
        cents: from + ((to - from) * i) / STEPS
      });
  };
  let top = 0;
  if (bend && bend.cents === undefined) {
    top = 100 * (midi - bend.from);
    const travel = Math.min(length * BENDING, quarter * LONGEST_BEND);
    glide(0, top, 0, travel);
    if (release) glide(top, 100 * (release.to - bend.from), length - travel, travel);
  } else if (bend?.cents !== undefined)
    glide(0, bend.cents, length * CURLS_FROM, length * (1 - CURLS_FROM) * 0.9);
  else if (slide && before && before.midi !== midi && Math.abs(before.midi - midi) <= BEND_RANGE)
    glide(100 * (before.midi - midi), 0, 0, Math.min(length * SLIDING, quarter * SLIDING));
  if (vibrato && !release) {
    const begin = Math.round(length * (bend ? 0.5 : SHAKES_AFTER));
    const every = quarter / SHAKES / 4;
    for (let i = 1; begin + i * every < length * 0.95; i++)
      points.push({
        after: Math.round(begin + i * every),
        cents: top + SHAKEN * Math.sin((i * Math.PI) / 2)
      });
  }
  // The wheel rests when the next note is struck.
  return points.length > 0 ? [...points, { after: length, cents: 0 }] : [];
}
