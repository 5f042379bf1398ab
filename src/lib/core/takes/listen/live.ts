/**
 * Listening while it is played: the note that sounds now, a few hundredths of a second after its stroke. By the same means as `listenTo` (where
 * the spectrum rises something begins, and what is new in it has the pitch), but it looks only back, so that it knows less; what is kept of
 * a take is never taken from here. Source: docs/music-rules.md, Listening.
 */
import type { Midi } from '../../base/units';
import { PitchDetector } from 'pitchy';
import type { RecordedBlock } from '../model';
import { levelOf, pitchOf, SILENT } from './frames';
import { RATE } from './listen';
import { quantile } from './onsets';
import { PitchFinder } from './pitch';
import { resampled } from './resample';
import { Spectrum } from './spectrum';

/** A note that was just struck, or slurred to. */
export interface LiveNote {
  /** Seconds of the clock that stamps the blocks. */
  readonly at: number;
  readonly midi: Midi;
}

/** What is heard at the end of a block. */
export interface LiveMoment {
  /** Seconds of the clock that stamps the blocks. */
  readonly at: number;
  /** Loudest sample, full scale 1. */
  readonly peak: number;
  /** MIDI number with fractions; null where no pitch is clear. */
  readonly pitch: number | null;
  /** The note that sounds; null in silence. */
  readonly sounds: LiveNote | null;
  /** What has begun within the block; hardly ever more than one. */
  readonly began: readonly LiveNote[];
}

/** Seconds from one look to the next, of sound that is kept, of a spectrum, and that a steady pitch is told from. */
const STEP = 0.0116;
const KEPT = 0.3;
const FRAME = 0.0232;
const STEADY = 0.0464;

/** Rises of the spectrum, against the moment two looks before. */
const RISE = {
  lag: 2,
  /** A magnitude of so many times the noise counts for one doubling; no noise is taken to be less than the floor. */
  aboveNoise: 2,
  floor: 1e-5,
  /** How fast the noise of a bin is learnt, down and up, for a look. */
  noise: { down: 0.2, up: 0.004 },
  /** Looks that tell what is usual; a stroke stands out from their middle by this much, and comes to this share of the highest strokes. */
  usual: 40,
  standsOut: 1.8,
  share: 0.18,
  /** For a look the height of the highest strokes is forgotten by this much. */
  forgets: 0.002,
  /** In seconds: strokes this near are one. */
  apart: 0.045,
  /** Hertz: below are hum and thumps, above little of a guitar. */
  from: 40,
  to: 8600
} as const;

/** When a pitch is looked for after a stroke, in seconds, and what it must have to be told; as in `listenTo`. */
const TOLD = {
  after: 0.03,
  until: 0.14,
  agree: 2,
  contrast: 1.8,
  fresh: 0.35,
  salience: 0.25,
  struckAgain: { fresh: 0.3, rise: 0.3 }
} as const;
/** Pitches nearer than this are one, in semitones. */
const SAME = 0.6;
/** A steady pitch this clear is one; this many looks of it, on its semitone, tell of a slur; it is at most this far. */
const SLUR = { clear: 0.9, looks: 3, on: 0.3, widest: 7 } as const;
/** Looks of a steady pitch that begin a note without any stroke: a voice, or a stroke that was not felt. */
const SUNG = 14;
/** A note has ended at this share of its loudest. */
const ENDED = 0.06;
/** How many notes tell what is usual. */
const REMEMBERED = 16;
/** How fast the tuning of the instrument is learnt: the share that one look counts. */
const LEARNS = 0.02;

const powerNear = (samples: number) => 2 ** Math.round(Math.log2(samples));

/** A stroke whose pitch is not told yet. */
interface Stroke {
  readonly at: number;
  rise: number;
  pitch: number;
  looks: number;
}

export class LiveEar {
  readonly #rate: number;
  readonly #step: number;
  readonly #sound: Float32Array;
  readonly #detector: PitchDetector<Float32Array>;
  readonly #steady: Float32Array;
  readonly #frame: number;
  readonly #spectrum: Spectrum;
  readonly #bins: { readonly from: number; readonly to: number };
  readonly #noise: Float32Array;
  readonly #finder = new PitchFinder(RATE);
  /** Samples that have come since the last look. */
  #fresh = 0;
  #spectra: Float32Array[] = [];
  #rises: number[] = [];
  #high = 0;
  #stroke: Stroke | null = null;
  #lastStroke = -Infinity;
  #sounding: { readonly midi: Midi; readonly at: number; loudest: number } | null = null;
  /** The last note that was told since there was silence. */
  #last: number | null = null;
  #slur: { readonly midi: Midi; readonly since: number; looks: number } | null = null;
  #saliences: number[] = [];
  /** Circular mean of what pitches have beside whole semitones. */
  #tuning = { sine: 0, cosine: 1 };

  /**
   * @param rate samples a second
   * @param steady seconds of sound that `pitch` is told from: longer tells it more exactly, and later
   */
  constructor(rate: number, steady = STEADY) {
    this.#rate = rate;
    this.#step = powerNear(STEP * rate);
    this.#sound = new Float32Array(Math.ceil(KEPT * rate));
    this.#steady = new Float32Array(powerNear(steady * rate));
    this.#detector = PitchDetector.forFloat32Array(this.#steady.length);
    this.#frame = powerNear(FRAME * rate);
    this.#spectrum = new Spectrum(this.#frame);
    const binOf = (hertz: number) => Math.round((hertz * this.#frame) / rate);
    this.#bins = { from: binOf(RISE.from), to: Math.min(this.#frame / 2 - 1, binOf(RISE.to)) };
    this.#noise = new Float32Array(this.#frame / 2).fill(RISE.floor);
  }

  /** Hears a block out. What was lost before it is passed over. */
  take({ frame, samples }: RecordedBlock): LiveMoment {
    const began: LiveNote[] = [];
    let pitch: number | null = null;
    for (let from = 0; from < samples.length;) {
      const part = samples.subarray(from, from + this.#step - this.#fresh);
      this.#push(part);
      from += part.length;
      if (this.#fresh < this.#step) continue;
      this.#fresh = 0;
      const heard = this.#look((frame + from) / this.#rate);
      pitch = heard.pitch;
      if (heard.began) began.push(heard.began);
    }
    return {
      at: (frame + samples.length) / this.#rate,
      peak: samples.reduce((most, sample) => Math.max(most, Math.abs(sample)), 0),
      pitch,
      sounds: this.#sounding && { at: this.#sounding.at, midi: this.#sounding.midi },
      began
    };
  }

  #push(part: Float32Array): void {
    this.#sound.copyWithin(0, part.length);
    this.#sound.set(part, this.#sound.length - part.length);
    this.#fresh += part.length;
  }

  /** One look, at what lies before a second. */
  #look(now: number): { readonly pitch: number | null; readonly began: LiveNote | null } {
    const level = levelOf(this.#sound, this.#sound.length - 2 * this.#step, this.#sound.length);
    this.#feel(now);
    if (level < SILENT) {
      this.#sounding = null;
      this.#last = null;
      this.#stroke = null;
      return { pitch: null, began: null };
    }
    const pitch = this.#steadyPitch();
    const own = this.#sounding;
    if (own) {
      own.loudest = Math.max(own.loudest, level);
      if (level < ENDED * own.loudest) this.#sounding = null;
    }
    const midi = this.#struck(now) ?? this.#slurred(pitch, now);
    if (midi === null) return { pitch, began: null };
    this.#sounding = { ...midi, loudest: level };
    this.#last = midi.midi;
    return { pitch, began: midi };
  }

  /** Feels whether something begins: where the spectrum rises above itself a moment ago. */
  #feel(now: number): void {
    const magnitudes = this.#spectrum.magnitudes(this.#sound, this.#sound.length - this.#frame, this.#frame);
    for (let bin = 0; bin < magnitudes.length; bin++) {
      const own = magnitudes[bin]!;
      const noise = this.#noise[bin]!;
      const pace = own < noise ? RISE.noise.down : RISE.noise.up;
      const learnt = Math.max(RISE.floor, noise + pace * (own - noise));
      this.#noise[bin] = learnt;
      magnitudes[bin] = Math.log1p(own / (RISE.aboveNoise * learnt));
    }
    const before = this.#spectra.at(-RISE.lag);
    this.#spectra = [...this.#spectra, magnitudes].slice(-RISE.lag);
    const rise = before ? this.#riseFrom(before, magnitudes) : 0;
    const usual = quantile(this.#rises, 0.5);
    this.#rises = [...this.#rises, rise].slice(-RISE.usual);
    this.#high = Math.max(rise, this.#high * (1 - RISE.forgets));
    const isStroke = rise > RISE.standsOut * usual && rise > RISE.share * this.#high;
    if (!isStroke) return;
    // A rise that goes on is one stroke.
    const isNew = now - this.#lastStroke > RISE.apart;
    this.#lastStroke = now;
    if (isNew) this.#stroke = { at: now - 1.5 * STEP, rise, pitch: NaN, looks: 0 };
    else if (this.#stroke) this.#stroke.rise = Math.max(this.#stroke.rise, rise);
  }

  #riseFrom(before: Float32Array, now: Float32Array): number {
    let sum = 0;
    for (let bin = this.#bins.from; bin < this.#bins.to; bin++) {
      const up = now[bin]! - Math.max(before[bin - 1]!, before[bin]!, before[bin + 1]!);
      if (up > 0) sum += up;
    }
    return sum;
  }

  #steadyPitch(): number | null {
    this.#steady.set(this.#sound.subarray(this.#sound.length - this.#steady.length));
    const [hertz, clarity] = this.#detector.findPitch(this.#steady, this.#rate);
    return clarity >= SLUR.clear && hertz > 0 ? pitchOf(hertz) : null;
  }

  /** The note of the last stroke, once its pitch can be told. */
  #struck(now: number): LiveNote | null {
    const stroke = this.#stroke;
    if (!stroke || now - stroke.at < TOLD.after) return null;
    if (now - stroke.at > TOLD.until) {
      this.#stroke = null;
      return null;
    }
    const sound = resampled(this.#sound, this.#rate, RATE);
    const at = sound.length - Math.round((now - stroke.at) * RATE);
    const begun = this.#finder.begins(sound, at, at, sound.length);
    const usual = quantile(this.#saliences, 0.7);
    if (begun.contrast < TOLD.contrast || begun.salience < TOLD.salience * usual) return null;
    const agrees = Math.abs(begun.pitch - stroke.pitch) < SAME;
    stroke.looks = agrees ? stroke.looks + 1 : 1;
    stroke.pitch = begun.pitch;
    if (stroke.looks < TOLD.agree) return null;
    const midi = Math.round(begun.pitch - this.#offset);
    const isAgain = this.#sounding?.midi === midi;
    const { struckAgain } = TOLD;
    if (
      isAgain
        ? begun.fresh < struckAgain.fresh || stroke.rise < struckAgain.rise * this.#high
        : begun.fresh < TOLD.fresh
    )
      return null;
    this.#stroke = null;
    this.#saliences = [...this.#saliences, begun.salience].slice(-REMEMBERED);
    return { at: stroke.at, midi };
  }

  /** A pitch that is reached without a stroke, and stays. */
  #slurred(pitch: number | null, now: number): LiveNote | null {
    const own = this.#sounding;
    const midi = pitch === null ? NaN : Math.round(pitch - this.#offset);
    const isOn = pitch !== null && Math.abs(pitch - this.#offset - midi) <= SLUR.on;
    if (isOn && midi === own?.midi) this.#learn(pitch);
    const isFar = own && Math.abs(midi - own.midi) > SLUR.widest;
    // What rings on below its end has begun already.
    const known = own?.midi ?? this.#last;
    if (!isOn || this.#stroke || midi === known || isFar) {
      this.#slur = null;
      return null;
    }
    if (this.#slur?.midi === midi) this.#slur.looks += 1;
    else this.#slur = { midi, since: now - 0.5 * STEADY, looks: 1 };
    if (this.#slur.looks < (own ? SLUR.looks : SUNG)) return null;
    const { since } = this.#slur;
    this.#slur = null;
    return { at: since, midi };
  }

  /** How far the instrument is off, in semitones from −½ to ½. */
  get #offset(): number {
    return Math.atan2(this.#tuning.sine, this.#tuning.cosine) / (2 * Math.PI);
  }

  #learn(pitch: number): void {
    const turn = 2 * Math.PI * pitch;
    this.#tuning.sine += LEARNS * (Math.sin(turn) - this.#tuning.sine);
    this.#tuning.cosine += LEARNS * (Math.cos(turn) - this.#tuning.cosine);
  }
}
