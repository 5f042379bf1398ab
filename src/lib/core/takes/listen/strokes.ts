/**
 * Which of the events in a sound are strokes of the player. What speaks for one is weighed together, by weights that were fitted to lines whose
 * strokes are known (`scripts/bench/listening/fit.ts`); what comes out is how likely it is one, which is told as the note's confidence.
 */
import { nth } from '../../base/list';
import type { KnownSound } from '../model';
import type { Event } from './events';
import { HOP, type Frame } from './frames';
import { quantile } from './onsets';

/** A stroke of the player. */
export interface Struck extends Event {
  /** How likely it is one, 0 to 1. */
  readonly confidence: number;
}

/** What plain strokes of this sound are like. */
export interface Plain {
  readonly salience: number;
  readonly rise: number;
  readonly level: number;
}

/** Pitches nearer than this are one, in semitones. */
export const SAME = 0.6;
/** Intervals at which a pitch is mistaken for one of its harmonics, in semitones. */
export const MISTAKEN = [12, 19, 24, 28, 31, 36];
/** From one frame to the next a pitch that glides moves less, in semitones. */
export const LEAP = 1.2;
/** Frames before and after an event in which a glide is looked for. */
const AROUND = { before: 2, after: 3 } as const;
/** A pitch that goes on moves less than this in all, in semitones. */
const WIDEST = 4.5;

/** Below which plain strokes lie so many of all; among a few the strongest is plain. */
const UPPER = { share: 0.7, few: 8 } as const;
const upper = (values: readonly number[]) => quantile(values, values.length < UPPER.few ? 1 : UPPER.share);

/** What plain strokes are like: the upper part of all that begins. */
export function plainOf(events: readonly Event[]): Plain {
  const high = upper(events.map(({ begun }) => begun.salience));
  const sure = events.filter(({ begun }) => begun.salience > high / 2 && begun.fresh > 0.5);
  const most = (value: (event: Event) => number) => upper(sure.map(value));
  return { salience: high, rise: most(({ onset }) => onset.rise), level: most(({ level }) => level) };
}

/** Whether the pitch goes on over an event without a gap or a leap: a bend, a slide, a vibrato, or nothing at all. */
function goesOn(frames: readonly Frame[], at: number): boolean {
  const middle = Math.round(at / HOP);
  const around = frames.slice(Math.max(0, middle - AROUND.before), middle + AROUND.after + 1);
  const pitches = around.map(({ pitch }) => pitch);
  if (pitches.some((pitch) => pitch === null)) return false;
  const known = pitches as number[];
  return (
    Math.max(...known) - Math.min(...known) <= WIDEST &&
    known.every((pitch, i) => i === 0 || Math.abs(pitch - nth(known, i - 1)) <= LEAP)
  );
}

const logIn = (value: number, low: number, high: number) =>
  Math.max(low, Math.min(high, Math.log(Math.max(1e-9, value))));

/** What is weighed about an event, given the stroke before it. */
export function featuresOf(
  { onset, begun, level, jump }: Event,
  before: Event | undefined,
  plain: Plain,
  frames: readonly Frame[]
): number[] {
  const strength = logIn(onset.rise / plain.rise, -3, 1);
  const louder = logIn(jump, -0.7, 2);
  const away = before ? Math.abs(before.begun.pitch - begun.pitch) : Infinity;
  const isSame = Number(away < SAME);
  const isHarmonic = Number(MISTAKEN.some((interval) => Math.abs(away - interval) < SAME));
  const glides = Number(goesOn(frames, onset.full));
  return [
    1,
    strength,
    begun.fresh,
    logIn(begun.contrast, 0, 2),
    logIn(begun.salience / plain.salience, -3, 1),
    logIn(level / plain.level, -4, 1),
    louder,
    begun.second,
    isSame,
    isSame * strength,
    isSame * begun.fresh,
    isSame * louder,
    glides,
    glides * strength,
    glides * begun.fresh,
    glides * louder,
    isHarmonic,
    isHarmonic * begun.fresh
  ];
}

/** The weights of the features, in their order. */
const WEIGHTS = [
  1.91, 1.74, 2.53, 2.15, -0.28, 3.32, 1.36, -3.67, 0.87, 0.65, -4.03, 2.26, -0.41, 1.2, -1.38, 2.98, -3.37,
  -1.49
] as const;

/** How likely an event with such features is a stroke of the player, 0 to 1; `against`: what speaks against it besides. */
function likely(features: readonly number[], against: number): number {
  const sum = features.reduce((total, value, i) => total + value * nth(WEIGHTS, i), -against);
  return 1 / (1 + Math.exp(-sum));
}

/**
 * What Corvel itself sounded speaks against a stroke at its moment, in seconds, of its pitch class, or at a drum's; the more, the weaker it is
 * against plain strokes. A hand that plays the same note with the band plays it in full.
 */
const KNOWN = { near: 0.05, pitch: 7, drum: 4, weak: 1.7 } as const;

function againstOf(
  { onset, begun }: Event,
  plain: Plain,
  known: readonly KnownSound[],
  rate: number
): number {
  if (known.length === 0) return 0;
  const at = onset.at / rate;
  const near = known.filter((own) => Math.abs(own.at - at) <= KNOWN.near);
  if (near.length === 0) return 0;
  const pitch = Math.round(begun.pitch);
  const isSame = near.some(({ midi }) => midi !== null && (midi - pitch) % 12 === 0);
  const isDrum = near.some(({ midi }) => midi === null);
  const weak = Math.max(0, Math.min(1, KNOWN.weak * (1 - begun.salience / plain.salience)));
  return weak * (isSame ? KNOWN.pitch : isDrum ? KNOWN.drum : 0);
}

/** A pitch stands out from other pitches by this much at least: noise has none. */
const CONTRAST = 1.5;
/** Weaker than this against plain strokes nothing is one, however new it is: what is left of the sound's noise. */
const FAINTEST = 0.12;

/**
 * Of all that begins, what the player struck.
 * @param rate samples a second
 * @param known what Corvel sounded meanwhile
 */
export function strokesAmong(
  events: readonly Event[],
  frames: readonly Frame[],
  rate: number,
  known: readonly KnownSound[] = []
): Struck[] {
  const plain = plainOf(events);
  const struck: Struck[] = [];
  for (const event of events) {
    if (event.begun.contrast < CONTRAST || event.level < FAINTEST * plain.level) continue;
    const against = againstOf(event, plain, known, rate);
    const confidence = likely(featuresOf(event, struck.at(-1), plain, frames), against);
    if (confidence >= 0.5) struck.push({ ...event, confidence });
  }
  return struck;
}
