/**
 * Where notes are struck: where the spectrum rises above itself a moment ago. Magnitudes count by their logarithm over the noise of their
 * bin, so that soft notes and bright noise are weighed alike; bins as far off as a vibrato reaches are compared too, so that it is no rise.
 */
import { nth } from '../../base/list';
import { Spectrum } from './spectrum';

/** Samples of a frame, and from one to the next. */
const FRAME = 1024;
const HOP = 128;

/** A moment at which something begins, in samples. */
export interface Onset {
  readonly at: number;
  /** Where it has risen the most. */
  readonly full: number;
  /** How much the spectrum rises. */
  readonly rise: number;
}

/** A rise is measured over so many hops. */
const LAG = 3;
/** A magnitude of so many times the noise counts for one doubling. */
const ABOVE_NOISE = 2;
/** No noise is taken to be less than this. */
const FLOOR = 1e-5;
/** A bin is at the level of its noise for this share of the time. */
const QUIET = 0.3;
/** Frames from which the noise is measured. */
const SAMPLED = 400;
/** Below are hum and thumps, above little of a guitar: bins. */
const BINS = { from: 2, to: Math.floor(FRAME * 0.4) } as const;

/** A pitch that swings moves its harmonics by this share of their frequency. */
const SWINGS = 0.015;

/** Rises this near are one onset, in seconds. */
const APART = 0.045;
/** A rise stands out from what is usual this far around, in seconds, by this much. */
const AROUND = 0.4;
const STANDS_OUT = 1.8;
/** Rises weaker than this share of the highest ones are none. */
const WEAKEST = 0.08;
const HIGH = 0.98;
/** A note begins where its rise has come to this share of its height, at most so many hops before. */
const BEGUN = 0.15;
const SLOWEST = 10;
/** From the frame in which a rise is seen to the sample in which it is, measured on notes whose start is known. */
const TO_START = FRAME / 2 + 88;
const TO_FULL = FRAME / 4;

/** How much the spectrum rises, hop by hop. */
function riseOf(sound: Float32Array): Float32Array {
  const spectrum = new Spectrum(FRAME);
  const count = Math.ceil(sound.length / HOP);
  const frames = Array.from({ length: count }, (_, i) =>
    spectrum.magnitudes(sound, i * HOP - FRAME / 2, FRAME)
  );
  const noise = noiseOf(frames);
  for (const frame of frames) {
    for (let bin = 0; bin < BINS.to; bin++)
      frame[bin] = Math.log1p(frame[bin]! / (ABOVE_NOISE * noise[bin]!));
  }
  const widened = frames.map(highestNear);
  return Float32Array.from(frames, (now, i) => (i < LAG ? 0 : riseFrom(nth(widened, i - LAG), now)));
}

/** The bins that a swinging pitch may have been in, from and to, two by two. */
const REACHES = Int16Array.from({ length: 2 * BINS.to }, (_, i) => {
  const bin = i >> 1;
  const reach = Math.max(1, Math.round(SWINGS * bin));
  return i % 2 === 0 ? Math.max(0, bin - reach) : Math.min(BINS.to - 1, bin + reach);
});

/** Of each bin the highest of those that a swinging pitch may have been in. In plain loops: it is done for every hop. */
function highestNear(frame: Float32Array): Float32Array {
  const out = new Float32Array(BINS.to);
  for (let bin = 0; bin < BINS.to; bin++) {
    const to = REACHES[2 * bin + 1]!;
    let highest = 0;
    for (let near = REACHES[2 * bin]!; near <= to; near++) {
      const own = frame[near]!;
      if (own > highest) highest = own;
    }
    out[bin] = highest;
  }
  return out;
}

/** @param before highest of the bins near each */
function riseFrom(before: Float32Array, now: Float32Array): number {
  let sum = 0;
  for (let bin = BINS.from; bin < BINS.to; bin++) {
    const up = now[bin]! - before[bin]!;
    if (up > 0) sum += up;
  }
  return sum;
}

function noiseOf(frames: readonly Float32Array[]): Float32Array {
  const every = Math.max(1, Math.floor(frames.length / SAMPLED));
  const some = frames.filter((_, i) => i % every === 0);
  return Float32Array.from({ length: BINS.to }, (_, bin) => {
    const levels = Float32Array.from(some, (frame) => frame[bin]!).sort();
    return Math.max(FLOOR, levels[Math.floor(levels.length * QUIET)] ?? 0);
  });
}

/** The onsets of a sound in the order of time. */
export function onsetsOf(sound: Float32Array, rate: number): Onset[] {
  const rise = riseOf(sound);
  const tops = topsOf(rise, (APART * rate) / HOP, (AROUND * rate) / HOP);
  const high = quantile([...rise], HIGH);
  return tops
    .filter((i) => rise[i]! >= WEAKEST * high)
    .map((i) => ({
      at: Math.max(0, Math.round((beginOf(rise, i) - LAG) * HOP + TO_START)),
      full: (i - LAG) * HOP + TO_FULL,
      rise: rise[i]!
    }));
}

/** The places where the rise is highest round about, and stands out. */
function topsOf(rise: Float32Array, apart: number, around: number): number[] {
  const tops: number[] = [];
  for (let i = 1; i < rise.length; i++) {
    const own = rise[i]!;
    if (own <= 0 || !isHighest(rise, i, Math.round(apart))) continue;
    const near = rise.slice(Math.max(0, Math.round(i - around)), Math.round(i + around)).sort();
    if (own >= STANDS_OUT * near[near.length >> 1]!) tops.push(i);
  }
  return tops;
}

function isHighest(rise: Float32Array, at: number, apart: number): boolean {
  for (let i = Math.max(0, at - apart); i <= Math.min(rise.length - 1, at + apart); i++) {
    if (rise[i]! > rise[at]! || (rise[i]! === rise[at]! && i < at)) return false;
  }
  return true;
}

/** The hop, with fractions, at which a rise began. */
function beginOf(rise: Float32Array, top: number): number {
  const begun = BEGUN * rise[top]!;
  let at = top;
  while (at > 1 && at > top - SLOWEST && rise[at - 1]! > begun) at--;
  const [below, above] = [rise[at - 1]!, rise[at]!];
  return at - 1 + Math.max(0, (begun - below) / (above - below || 1));
}

/** The value below which a share of some numbers lies; 0 of none. */
export function quantile(values: readonly number[], share: number): number {
  const sorted = [...values].sort((a, b) => a - b);
  return sorted[Math.min(sorted.length - 1, Math.floor(share * sorted.length))] ?? 0;
}
