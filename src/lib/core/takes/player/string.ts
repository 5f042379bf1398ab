/**
 * The sound of a plucked string, made of nothing: a loop of delay that loses its brightness as it goes round, plucked at a point, as the
 * usual model of a plucked string has it. Driven, it goes through a curve that bends as an amplifier does.
 */
import type { Seconds } from '../../base/units';
import { chanceOf } from '../../line/chance';
import type { Stroke } from './perform';

export const TONES = ['bright', 'dark', 'driven'] as const;
export type Tone = (typeof TONES)[number];

interface Timbre {
  /** How much of the brightness goes in each turn of the loop, 0 to 1. */
  readonly damped: number;
  /** Seconds in which a low string falls by 60 dB. */
  readonly rings: number;
  /** How soft the plectrum is, 0 to 1. */
  readonly soft: number;
  /** Gain before the curve; none where it stays clean. */
  readonly drive?: number;
}

const TIMBRES: Readonly<Record<Tone, Timbre>> = {
  bright: { damped: 0.25, rings: 5, soft: 0.2 },
  dark: { damped: 0.5, rings: 3.5, soft: 0.7 },
  driven: { damped: 0.4, rings: 6, soft: 0.4, drive: 9 }
};

/** Seconds in which a finger stops a string. */
const STOPPED = 0.025;
/** A damped string loses so much of its brightness, and rings for so many seconds. */
const MUTED = { damped: 0.5, rings: 0.25 } as const;
/** Seconds after the last note. */
const TAIL = 0.5;
/** A pitch that glides is set anew after so many samples. */
const STEP = 32;
const LEVEL = 0.6;
/** Where a string is plucked, as a share of its length, and how far about. */
const PLUCKED = 0.18;
const PLUCKED_ABOUT = 0.06;
const MOST_HARMONICS = 40;
/** Noise of the plectrum against the first harmonic. */
const SCRATCH = 0.15;

const hertzOf = (pitch: number) => 440 * 2 ** ((pitch - 69) / 12);

/** Strokes as sound: one channel, full scale −1 to 1. */
export function sounded(
  strokes: readonly Stroke[],
  tone: Tone,
  rate: number,
  seconds = 0
): Float32Array<ArrayBuffer> {
  const last = strokes.reduce((end, { at, seconds }) => Math.max(end, at + seconds), 0);
  const out = new Float32Array(Math.ceil(Math.max(seconds, last + TAIL) * rate));
  const timbre = TIMBRES[tone];
  let string: PluckedString | null = null;
  strokes.forEach((stroke, i) => {
    // Of what is struck together the last one is the voice that slurs go on from.
    const next = strokes[i + 1];
    const isGoingOn: boolean = next?.slur === true && next.at <= stroke.at + stroke.seconds + STOPPED;
    if (!string || !stroke.slur) string = new PluckedString(stroke, timbre, rate, i);
    string.play(out, stroke, isGoingOn);
    if (!isGoingOn) string = null;
  });
  const drive = timbre.drive;
  const shape = drive ? (x: number) => Math.tanh(drive * x) * 0.5 : (x: number) => x;
  for (let i = 0; i < out.length; i++) out[i] = LEVEL * shape(out[i]!);
  return out;
}

/** The pitch of a stroke so many seconds after its start: MIDI number with fractions. */
export function pitchAt({ midi, bend, release, vibrato }: Stroke, after: number): number {
  const share = (begun: number, seconds: Seconds) =>
    seconds > 0 ? Math.max(0, Math.min(1, (after - begun) / seconds)) : Number(after >= begun);
  const up = bend ? (1 - share(0, bend.seconds)) * (bend.from - midi) : 0;
  const down = release ? share(release.after, release.seconds) * (release.to - midi) : 0;
  const shaken =
    vibrato && after > vibrato.after
      ? (vibrato.cents / 100) * Math.sin(2 * Math.PI * vibrato.hertz * (after - vibrato.after))
      : 0;
  return midi + up + down + shaken;
}

class PluckedString {
  private readonly timbre: Timbre;
  readonly #loop: Float32Array;
  readonly #loss: number;
  #write = 0;
  #last = 0;

  constructor(
    { midi, loudness, bend, muted }: Stroke,
    timbre: Timbre,
    private readonly rate: number,
    seed: number
  ) {
    this.timbre = muted ? { ...timbre, ...MUTED } : timbre;
    const pitch = bend?.from ?? midi;
    // Long enough for the lowest string, whatever it is bent or slurred to.
    this.#loop = new Float32Array(Math.ceil(rate / 30));
    const turn = rate / hertzOf(pitch);
    this.#loss = 0.001 ** (1 / (this.timbre.rings * hertzOf(pitch)));
    this.#pluck(Math.round(turn), loudness, seed);
  }

  /** Fills one turn of the loop with the harmonics of a string plucked at a point, and a little noise of the plectrum. */
  #pluck(turn: number, loudness: number, seed: number): void {
    const chance = chanceOf(seed, turn);
    const point = PLUCKED + PLUCKED_ABOUT * (chance() - 0.5);
    const highest = Math.min(MOST_HARMONICS, Math.floor(turn / 2) - 1);
    for (let harmonic = 1; harmonic <= highest; harmonic++) {
      const size = Math.sin(Math.PI * harmonic * point) / harmonic ** (0.6 + this.timbre.soft);
      const phase = 2 * Math.PI * chance();
      for (let i = 0; i < turn; i++) {
        this.#loop[i]! += size * Math.sin((2 * Math.PI * harmonic * i) / turn + phase);
      }
    }
    let power = 0;
    for (let i = 0; i < turn; i++) {
      this.#loop[i]! += SCRATCH * (1 - this.timbre.soft) * (2 * chance() - 1);
      power += this.#loop[i]! ** 2;
    }
    const gain = (0.35 * loudness) / Math.sqrt(power / turn || 1);
    for (let i = 0; i < turn; i++) this.#loop[i] = this.#loop[i]! * gain;
    this.#write = turn;
  }

  /** Adds the sound of a stroke; where it is slurred on to another the string is not stopped. */
  play(out: Float32Array, stroke: Stroke, isGoingOn: boolean): void {
    const first = Math.round(stroke.at * this.rate);
    const count = Math.round(stroke.seconds * this.rate);
    const stop = isGoingOn ? 0 : Math.round(STOPPED * this.rate);
    const isGliding = Boolean(stroke.bend ?? stroke.release ?? stroke.vibrato);
    let turn = this.#turnOf(pitchAt(stroke, 0));
    for (let i = 0; i < count + stop && first + i < out.length; i++) {
      if (isGliding && i % STEP === 0) turn = this.#turnOf(pitchAt(stroke, i / this.rate));
      const fade = i < count ? 1 : 1 - (i - count) / stop;
      out[first + i]! += this.#next(turn) * fade;
    }
  }

  /** Samples of a turn, less the delay of the damping. */
  #turnOf(pitch: number): number {
    return this.rate / hertzOf(pitch) - this.timbre.damped;
  }

  #next(turn: number): number {
    const size = this.#loop.length;
    const place = this.#write - turn + 2 * size;
    const low = Math.floor(place);
    const part = place - low;
    const value = (1 - part) * this.#loop[low % size]! + part * this.#loop[(low + 1) % size]!;
    const damped = (1 - this.timbre.damped) * value + this.timbre.damped * this.#last;
    this.#last = damped;
    this.#loop[this.#write % size] = damped * this.#loss;
    this.#write = (this.#write + 1) % size;
    return value;
  }
}
