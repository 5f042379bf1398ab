/**
 * The beat of a recording: where its first beat lies and how fast it goes, found from its onsets, from taps, or corrected by hand.
 * A recording is taken to keep its tempo.
 */

import type { Beats, Seconds } from '../base/units';

/** Beat n of the form sounds at `first + n · 60 / tempo` seconds of the recording. */
export interface BeatGrid {
  readonly first: number;
  /** Beats a minute; not a whole number as a rule. */
  readonly tempo: number;
}

export const SLOWEST = 40;
export const QUICKEST = 240;
/** Players count most music about as fast as this; a tempo and its double are told apart by it. */
const USUAL = 112;
/** Octaves of tempo within which a guess is nearly as good. */
const SPREAD = 0.7;
/** Frames a second in which onsets are looked for. */
const FRAMES = 100;
/** Beyond so many seconds nothing new is learnt about the tempo. */
const HEARD = 120;

/** When a beat sounds in a recording, in seconds. */
export const secondOfBeat = ({ first, tempo }: BeatGrid, beat: number) => first + (beat * 60) / tempo;

/** The grid that samples (mono, so many a second) suggest; null for silence and for what is shorter than a few beats. */
export function findBeats(samples: Float32Array, rate: number): BeatGrid | null {
  const onsets = onsetsOf(samples.subarray(0, Math.round(HEARD * rate)), rate);
  const sum = onsets.reduce((all, one) => all + one, 0);
  if (onsets.length < 3 * FRAMES || sum <= 0) return null;
  const comb = counted(onsets, refined(onsets, roughTempo(onsets)));
  return { tempo: comb.tempo, first: firstBeat(onsets, comb) };
}

/** How suddenly the sound grows, frame by frame, in all of it and in its high part; what is usual around is taken off. */
function onsetsOf(samples: Float32Array, rate: number): Float32Array {
  const size = Math.round(rate / FRAMES);
  const count = Math.floor(samples.length / size);
  const [whole, high] = [new Float32Array(count), new Float32Array(count)];
  for (let frame = 0; frame < count; frame++) {
    let [all, edge] = [0, 0];
    for (let i = frame * size + 1; i < (frame + 1) * size; i++) {
      all += samples[i]! ** 2;
      edge += (samples[i]! - samples[i - 1]!) ** 2;
    }
    whole[frame] = all;
    high[frame] = edge;
  }
  for (const power of [whole, high]) {
    const most = power.reduce((a, b) => Math.max(a, b), 1e-12);
    power.forEach((value, frame) => (power[frame] = Math.log1p((100 * value) / most)));
  }
  const grown = new Float32Array(count);
  for (let frame = 1; frame < count; frame++) {
    const [all, edge] = [whole[frame]! - whole[frame - 1]!, high[frame]! - high[frame - 1]!];
    // Kick and snare tell the beat, cymbals its halves as well.
    grown[frame] = 3 * Math.max(0, all) + Math.max(0, edge);
  }
  const around = FRAMES / 4;
  return grown.map((value, frame) => {
    const near = grown.subarray(Math.max(0, frame - around), frame + around);
    return Math.max(0, value - near.reduce((all, one) => all + one, 0) / near.length);
  });
}

/** Beats a minute at which the onsets come back most, weighed by how usual they are. */
function roughTempo(onsets: Float32Array): number {
  let best = { tempo: USUAL, score: -Infinity };
  for (let tempo = SLOWEST; tempo <= QUICKEST; tempo += 0.5) {
    const lag = (60 * FRAMES) / tempo;
    const usual = Math.exp(-0.5 * (Math.log2(tempo / USUAL) / SPREAD) ** 2);
    const score = usual * (again(onsets, lag) + 0.5 * again(onsets, 2 * lag) + 0.25 * again(onsets, 4 * lag));
    if (score > best.score) best = { tempo, score };
  }
  return best.tempo;
}

/** How much of the onsets comes back after some frames; a frame beside counts too. */
function again(onsets: Float32Array, lag: number): number {
  const shift = Math.round(lag);
  let sum = 0;
  for (let i = 0; i + shift + 1 < onsets.length; i++) {
    sum +=
      onsets[i]! * Math.max(onsets[i + shift]!, 0.7 * onsets[i + shift - 1]!, 0.7 * onsets[i + shift + 1]!);
  }
  return sum / Math.max(1, onsets.length - shift);
}

interface Comb {
  readonly tempo: number;
  /** Frames. */
  readonly phase: number;
}

/** The tempo near a rough one, and the phase, whose beats meet the most onsets. */
function refined(onsets: Float32Array, rough: number): Comb {
  let best = { tempo: rough, phase: 0, score: -Infinity };
  const search = (from: number, to: number, step: number) => {
    for (let tempo = from; tempo <= to; tempo += step) {
      const period = (60 * FRAMES) / tempo;
      for (let phase = 0; phase < period; phase++) {
        const score = met(onsets, period, phase);
        if (score > best.score) best = { tempo, phase, score };
      }
    }
  };
  search(rough * 0.97, rough * 1.03, rough * 0.002);
  search(best.tempo * 0.998, best.tempo * 1.002, rough * 0.0001);
  return best;
}

/** A comb of which every other tooth meets much less goes in eighths: its beats are the stronger ones. */
function counted(onsets: Float32Array, { tempo, phase }: Comb): Comb {
  const period = (60 * FRAMES) / tempo;
  const [even, odd] = [met(onsets, 2 * period, phase), met(onsets, 2 * period, phase + period)];
  const isInEighths = Math.min(even, odd) < 0.62 * Math.max(even, odd) && tempo > USUAL;
  return isInEighths ? { tempo: tempo / 2, phase: even >= odd ? phase : phase + period } : { tempo, phase };
}

function met(onsets: Float32Array, period: number, phase: number): number {
  let [sum, count] = [0, 0];
  for (let at = phase; at < onsets.length - 1; at += period) {
    const frame = Math.floor(at);
    const part = at - frame;
    sum += (1 - part) * onsets[frame]! + part * onsets[frame + 1]!;
    count++;
  }
  return sum / Math.max(1, count);
}

/** The first beat of the comb where the music has begun. */
function firstBeat(onsets: Float32Array, { tempo, phase }: Comb): number {
  const most = onsets.reduce((a, b) => Math.max(a, b), 0);
  const begins = onsets.findIndex((value) => value > 0.25 * most);
  const period = (60 * FRAMES) / tempo;
  const beats = Math.max(0, Math.round((begins - phase) / period));
  return (phase + beats * period) / FRAMES;
}

/** The grid of taps (seconds of the recording), the first of them on the first beat; null for fewer than four. */
export function tappedBeats(taps: readonly number[]): BeatGrid | null {
  const count = taps.length;
  if (count < 4) return null;
  // The line that lies nearest all taps.
  const middle = (count - 1) / 2;
  const mean = taps.reduce((sum, tap) => sum + tap, 0) / count;
  const [up, down] = taps.reduce(
    ([above, below], tap, i) => [above + (i - middle) * (tap - mean), below + (i - middle) ** 2],
    [0, 0]
  );
  const tempo = (60 * down) / up;
  if (!(tempo >= SLOWEST / 2 && tempo <= QUICKEST * 2)) return null;
  return { tempo, first: Math.max(0, mean - (middle * 60) / tempo) };
}

/** The grid with a beat of it dragged to another second: the first moves all, a later one changes the tempo. */
export function draggedBeats(grid: BeatGrid, beat: number, second: number): BeatGrid | null {
  if (beat <= 0) return { ...grid, first: Math.max(0, second) };
  const tempo = (60 * beat) / (second - grid.first);
  return tempo >= SLOWEST / 2 && tempo <= QUICKEST * 2 ? { ...grid, tempo } : null;
}

/**
 * The second of a recording at which a round of the chart begins: the whole form goes on chorus by chorus as far as the
 * recording reaches, then from its first chorus; what is looped inside the form is taken from the first.
 */
export function secondOfRound(
  grid: BeatGrid,
  { from, beats, form }: { readonly from: number; readonly beats: Beats; readonly form: number },
  round: number,
  seconds: Seconds
): number {
  const isWhole = Math.abs(beats - form) < 1e-6;
  const choruses = Math.max(1, Math.floor((((seconds - grid.first) * grid.tempo) / 60 + 0.5) / form));
  return secondOfBeat(grid, from + (isWhole ? (round % choruses) * form : 0));
}
