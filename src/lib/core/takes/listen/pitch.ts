/**
 * Which pitch begins at a moment: the harmonics that are there after it and were not, or less, before. What goes on ringing from the note
 * before is taken out that way. Source: the sum of harmonics, as it is usual for one voice, over the difference of two spectra.
 */
import { Spectrum } from './spectrum';

/** MIDI numbers that are looked for: a low C on a baritone to two octaves over the highest string. */
const LOWEST = 33;
const HIGHEST = 92;
/** Pitches tried in a semitone. */
const STEPS = 4;
const SIZE = 4096;
const HARMONICS = 20;
/** Each harmonic counts for this much of the one below. */
const FADE = 0.88;
/** Of what sounded before this share is taken out. */
const TAKEN_OUT = 0.7;
/** Seconds of a stroke, which has no pitch yet. */
const STROKE = 0.008;
/** Samples of a spectrum. */
const LENGTH = { least: 512, most: 2048 } as const;

/**
 * Where a string's own tone is weak, its octave or twelfth may come out the best. Both are told by how nearly as strong the pitch below is,
 * and by the share of its harmonics that the higher one has not; measured on lines in every kind of sound.
 */
const MISTAKEN = [
  { harmonic: 2, interval: 12, nearly: 0.9, own: 0.32 },
  { harmonic: 3, interval: 19, nearly: 0.9, own: 0.5 }
] as const;

/** Frequencies of the pitches tried, as bins of the spectrum at a rate. */
const binsOf = (rate: number) =>
  Float64Array.from(
    { length: (HIGHEST - LOWEST) * STEPS + 1 },
    (_, i) => (440 * 2 ** ((LOWEST + i / STEPS - 69) / 12) * SIZE) / rate
  );

/** A pitch that begins. */
export interface Begun {
  /** MIDI number with fractions. */
  readonly pitch: number;
  /** How much of it there is. */
  readonly salience: number;
  /** How far it stands out from other pitches: 1 is not at all. */
  readonly contrast: number;
  /** The share of its harmonics that was not there before. */
  readonly fresh: number;
  /** The strongest pitch beside it that is none of its harmonics, as a share of it. */
  readonly second: number;
  /**
   * What is left once its harmonics are taken out: the strongest pitch of that, how much of it there is, as a share, and the share of its
   * harmonics that was not there before.
   */
  readonly beside: { readonly pitch: number; readonly share: number; readonly fresh: number };
}

export class PitchFinder {
  readonly #spectrum = new Spectrum(SIZE);
  readonly #after = new Float32Array(SIZE / 2);
  readonly #before = new Float32Array(SIZE / 2);
  readonly #fresh = new Float32Array(SIZE / 2);
  readonly #bins: Float64Array;
  readonly #stroke: number;

  constructor(rate: number) {
    this.#bins = binsOf(rate);
    this.#stroke = Math.round(STROKE * rate);
  }

  /**
   * The pitch that begins where a sound begins to rise (`at`) and has risen (`full`), up to where the next does (`next`), in samples.
   */
  begins(sound: Float32Array, at: number, full: number, next: number): Begun {
    const length = Math.max(LENGTH.least, Math.min(LENGTH.most, next - full));
    this.#spectrum.magnitudes(sound, full + this.#stroke, length, this.#after);
    this.#spectrum.magnitudes(sound, at - this.#stroke - length, length, this.#before);
    this.#subtract(TAKEN_OUT);
    const saliences = Float64Array.from(this.#bins, (_, i) => this.#sumAt(i));
    let best = 0;
    let sum = 0;
    for (let i = 0; i < saliences.length; i++) {
      sum += saliences[i]!;
      if (saliences[i]! > saliences[best]!) best = i;
    }
    best = this.#below(saliences, best);
    const salience = saliences[best]!;
    const beside = this.#beside(best, salience, (LOBE * SIZE) / length);
    const whole = this.#subtract(0).#sumAt(best);
    const fresh = this.#subtract(1).#sumAt(best);
    return {
      pitch: LOWEST + (best + peakOffset(saliences, best)) / STEPS,
      salience,
      contrast: salience / (sum / saliences.length || 1),
      fresh: whole > 0 ? fresh / whole : 0,
      second: salience > 0 ? secondOf(saliences, best) / salience : 0,
      beside
    };
  }

  /** The pitch that is left once the harmonics of the best one are taken out, each with so many bins around it. */
  #beside(best: number, salience: number, around: number): Begun['beside'] {
    let [top, most] = [-1, 0];
    this.#without(best, around);
    const [low, high] = [best - BESIDE.to * STEPS, best + BESIDE.to * STEPS];
    for (let i = Math.max(1, low); i <= Math.min(this.#bins.length - 2, high); i++) {
      if (Math.abs(i - best) < BESIDE.from * STEPS) continue;
      const sum = this.#sumAt(i);
      if (sum > most) [top, most] = [i, sum];
    }
    if (top < 0 || salience <= 0) return { pitch: 0, share: 0, fresh: 0 };
    const whole = this.#subtract(0).#without(best, around).#sumAt(top);
    const fresh = this.#subtract(1).#without(best, around).#sumAt(top);
    return {
      pitch: LOWEST + top / STEPS,
      share: most / salience,
      fresh: whole > 0 ? fresh / whole : 0
    };
  }

  /** Takes the harmonics of a pitch tried out, each with so many bins around it. */
  #without(pitch: number, around: number): this {
    const step = this.#bins[pitch]!;
    for (let bin = step; bin - around < this.#fresh.length; bin += step) {
      this.#fresh.fill(0, Math.max(0, Math.ceil(bin - around)), Math.floor(bin + around) + 1);
    }
    return this;
  }

  /** The roots of what is there after the moment, less a share of what was there before it. */
  #subtract(share: number): this {
    for (let bin = 0; bin < this.#fresh.length; bin++) {
      this.#fresh[bin] = Math.sqrt(Math.max(0, this.#after[bin]! - share * this.#before[bin]!));
    }
    return this;
  }

  /** The pitch of which the best one is but a harmonic: it is nearly as strong, and has harmonics that the best has not. */
  #below(saliences: Float64Array, best: number): number {
    for (const { harmonic, interval, nearly, own } of MISTAKEN) {
      const down = topNear(saliences, best - interval * STEPS);
      const salience = saliences[best]!;
      if (down === null || saliences[down]! < nearly * salience) continue;
      if (this.#sumAt(down, harmonic) >= own * salience) return down;
    }
    return best;
  }

  /** The harmonics of a pitch tried, each counting for less than the one below; but for every so-many-th where that is asked. */
  #sumAt(pitch: number, except = Infinity): number {
    const step = this.#bins[pitch]!;
    let sum = 0;
    let weight = 1;
    for (let harmonic = 1; harmonic <= HARMONICS; harmonic++) {
      const bin = harmonic * step;
      const low = Math.floor(bin);
      if (low + 1 >= this.#fresh.length) break;
      if (harmonic % except !== 0)
        sum += weight * (this.#fresh[low]! + (bin - low) * (this.#fresh[low + 1]! - this.#fresh[low]!));
      weight *= FADE;
    }
    return sum;
  }
}

/** The highest of a place and its neighbours; null outside. */
function topNear(values: Float64Array, at: number): number | null {
  if (at < 1 || at + 1 >= values.length) return null;
  return [at - 1, at + 1].reduce((top, i) => (values[i]! > values[top]! ? i : top), at);
}

/** How far the top of the parabola through a highest value and its neighbours lies from it. */
function peakOffset(values: Float64Array, at: number): number {
  const [before, own, after] = [values[at - 1], values[at]!, values[at + 1]];
  if (before === undefined || after === undefined) return 0;
  const bend = before - 2 * own + after;
  return bend < 0 ? (0.5 * (before - after)) / bend : 0;
}

/** Half the width of a harmonic in a spectrum of one bin a sample, in bins. */
const LOBE = 2;
/** A second voice lies at least and at most so many semitones from the first. */
const BESIDE = { from: 1.75, to: 16 } as const;

/** Intervals, in semitones, at which a pitch is answered by its own harmonics. */
const OWN = [0, 12, 19, 24, 28, 31, 36];
const NEAR = 0.75;

function secondOf(saliences: Float64Array, best: number): number {
  let second = 0;
  saliences.forEach((value, i) => {
    const interval = Math.abs(i - best) / STEPS;
    if (value > second && !OWN.some((own) => Math.abs(interval - own) <= NEAR)) second = value;
  });
  return second;
}
