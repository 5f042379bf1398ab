/** Plays rounds of events on the audio clock, a little ahead of it, at a tempo that may change while it goes. */
import { numberAt } from '$lib/core/base/list';
import { firstOf, lastOf } from '../core/base/list';
import * as Tone from 'tone';
// Inside this module: it must be there when the network is not.
import Ticker from '../workers/ticker?worker&inline';
import {
  advance,
  beatAt,
  endOf,
  relaid,
  retimed,
  roundAt,
  secondAt,
  stillPlayable,
  type LaidRound,
  type Progress,
  type Round
} from '../core/practice/clock';
import type { Part, SoundEvent } from '../core/practice/events';
import { holdListening } from './listen';
import { openSound } from './open';
import { loadSounds, type Sounds } from './sounds';
import type { ChordSound } from '../core/practice/feel';
import { makeBand, TAIL, type Band } from './voices';

/** Seconds that events are handed to the audio clock before they sound: as long as a busy machine may be away. */
const AHEAD = 0.6;
/** A hidden page may be woken late. */
const AHEAD_HIDDEN = 1.5;
/** What should have sounded longer ago than this is left out, so that nothing piles up after a sleep. */
const TOO_LATE = 0.05;
/** Silence before the first count. */
const BREATH = 0.12;

/** What is played: `roundOf` is asked for each round a moment before it begins. */
export interface Program<R extends Round> {
  readonly countIn: readonly SoundEvent[];
  readonly roundOf: (round: number) => R | null;
  /** Beats a minute at the start. */
  readonly tempo: number;
  /** Called again and again while it plays, also in a hidden page. */
  readonly onTick: () => void;
}

export class Player<R extends Round> {
  #band: Band;
  readonly #sounds: Sounds;
  #chordSound: ChordSound = 'piano';
  #backing: AudioBuffer | null = null;
  #ticker: Worker;
  #program: Program<R> | null = null;
  #progress: Progress<R> | null = null;
  #begun = 0;

  /** What goes to the loudspeaker, listened to. */
  #meter = new Tone.Meter({ normalRange: true, smoothing: 0.5 });

  private constructor(sounds: Sounds) {
    Tone.getDestination().connect(this.#meter);
    this.#sounds = sounds;
    this.#band = makeBand(sounds, this.#chordSound);
    this.#ticker = new Ticker();
    this.#ticker.onmessage = () => this.#tick();
  }

  static async open<R extends Round>(): Promise<Player<R>> {
    const [sounds] = await Promise.all([loadSounds(), openSound()]);
    return new Player<R>(sounds);
  }

  /** Begins from the count-in, or from the first beat where there is none. */
  start(program: Program<R>): void {
    this.stop();
    const beat = program.countIn[0]?.start ?? 0;
    const second = Tone.getContext().currentTime + BREATH;
    holdListening(true);
    this.#program = program;
    this.late = 0;
    this.#begun = second;
    this.#progress = { tempos: [{ second, beat, tempo: program.tempo }], laid: [], handed: beat };
    this.#tick();
  }

  stop(): void {
    if (!this.#program) return;
    this.#program = null;
    this.#progress = null;
    holdListening(false);
    this.#renew();
  }

  /** Voices that have been handed over already end with their band. */
  #renew(): void {
    this.#band.dispose();
    this.#band = makeBand(this.#sounds, this.#chordSound, {
      backing: this.#backing,
      stretched: (rate) => this.#stretched?.(rate) ?? null
    });
    for (const [part, [decibels, isMuted]] of this.#mix) this.#band.setVolume(part, decibels, isMuted);
  }

  /** What the chords are played on; to be set while nothing plays. */
  setChordSound(sound: ChordSound): void {
    if (sound === this.#chordSound) return;
    this.#chordSound = sound;
    this.#renew();
  }

  #stretched: ((rate: number) => AudioBuffer | null) | null = null;
  /** The player's own recording, which goes with the band; to be set while nothing plays. `stretched`: the same at another speed, if it is made. */
  setBacking(backing: AudioBuffer | null, stretched: (rate: number) => AudioBuffer | null): void {
    this.#stretched = stretched;
    if (backing === this.#backing) return;
    this.#backing = backing;
    this.#renew();
  }

  /** Events that were handed over after their time. */
  late = 0;

  /** Another tempo, from the first beat on that has not been handed to the audio clock. */
  setTempo(tempo: number): void {
    const progress = this.#progress;
    if (!progress || tempo === lastOf(progress.tempos).tempo) return;
    this.#progress = { ...progress, tempos: retimed(progress.tempos, progress.handed, tempo) };
  }

  /** Other events for what has not been handed to the audio clock of the rounds that are laid down. */
  relay(make: (laid: LaidRound<R>, from: number) => R): void {
    const progress = this.#progress;
    if (progress) this.#progress = { ...progress, laid: relaid(progress.laid, progress.handed, make) };
  }

  readonly #mix = new Map<Part, [number, boolean]>();
  setVolume(part: Part, decibels: number, isMuted: boolean): void {
    this.#mix.set(part, [decibels, isMuted]);
    this.#band.setVolume(part, decibels, isMuted);
  }

  /** Beats since the first round began, as the ear has it; negative while counting in, null at rest. */
  get beat(): number | null {
    if (!this.#progress) return null;
    const context = Tone.getContext().rawContext as AudioContext;
    const latency = context.outputLatency || context.baseLatency || 0;
    return beatAt(this.#progress.tempos, Tone.getContext().currentTime - latency);
  }

  /** Second of the audio clock at which the first beat is handed to the loudspeaker, and the tempo there; null at rest. */
  get firstBeat(): { readonly second: number; readonly tempo: number } | null {
    if (!this.#progress) return null;
    const { tempos } = this.#progress;
    return { second: secondAt(tempos, 0), tempo: firstOf(tempos).tempo };
  }

  get now(): number {
    return Tone.getContext().currentTime;
  }

  /** The beat that is handed to the loudspeaker at a second of the audio clock; null at rest. */
  beatAt(second: number): number | null {
    return this.#progress && beatAt(this.#progress.tempos, second);
  }

  /** The round that sounds at a beat. */
  roundAt(beat: number): LaidRound<R> | null {
    return this.#progress && roundAt(this.#progress.laid, beat);
  }

  /** The beat after the last round that has been laid down. */
  get end(): number {
    return this.#progress ? endOf(this.#progress.laid) : 0;
  }

  /** Beats a minute at a beat. */
  tempoAt(beat: number): number {
    const tempos = this.#progress?.tempos ?? [];
    return (tempos.findLast((anchor) => anchor.beat <= beat) ?? tempos[0])?.tempo ?? 0;
  }

  /** Seconds of music since the start, by the audio clock. */
  get seconds(): number {
    return this.#program ? Math.max(0, Tone.getContext().currentTime - this.#begun) : 0;
  }

  /** Loudness of what sounds, 0 to 1. */
  get level(): number {
    const value = this.#meter.getValue();
    return typeof value === 'number' && Number.isFinite(value) ? value : 0;
  }

  close(): void {
    this.#program = null;
    this.#progress = null;
    holdListening(false);
    this.#ticker.terminate();
    this.#meter.dispose();
    this.#band.dispose();
  }

  #tick(): void {
    const program = this.#program;
    if (!program || !this.#progress) return;
    const now = Tone.getContext().currentTime;
    const horizon = now + (document.hidden ? AHEAD_HIDDEN : AHEAD);
    const { progress, due } = advance(this.#progress, program.countIn, program.roundOf, horizon);
    this.#progress = progress;
    for (const { event, second, seconds } of stillPlayable(due, progress.tempos, now, TOO_LATE)) {
      if (second <= now) this.late += 1;
      if (event.at < 0) this.#band.count(event, second);
      else this.#band.play(event, second, seconds);
    }
    program.onTick();
  }
}

/** Seconds of music rendered at a time: progress is told, and a stop heard, after each. */
const STRETCH = 12;
/** Stretches rendered side by side: each has a thread of its own. */
const [FEWEST_AT_ONCE, MOST_AT_ONCE] = [2, 4];
const RATE = 44_100;
/** Samples are brought under this where voices add up to more. */
const CEILING = 0.97;

export interface Rendering {
  readonly events: readonly SoundEvent[];
  /** Beats a minute. */
  readonly tempo: number;
  readonly beats: number;
  readonly chordSound: ChordSound;
  readonly mix: ReadonlyMap<Part, readonly [decibels: number, isMuted: boolean]>;
  /** Told how much is done, 0 to 1. */
  readonly onProgress?: (done: number) => void;
  readonly signal?: AbortSignal;
}

/**
 * Renders events to sound samples, mono, stretch by stretch, so that the time it takes grows as the music does: each stretch has
 * its own voices, which ring over into the next. Ends with a tail. Throws what the signal was stopped with.
 */
export async function render(rendering: Rendering): Promise<{ samples: Float32Array; rate: number }> {
  const { events, tempo, beats, chordSound, mix, onProgress, signal } = rendering;
  const sounds = await loadSounds();
  const seconds = (time: number) => (time * 60) / tempo;
  const samples = new Float32Array(Math.ceil((seconds(beats) + TAIL) * RATE));
  const stretches = Math.max(1, Math.ceil(seconds(beats) / STRETCH));
  const audible = events.filter(({ part }) => !mix.get(part)?.[1]);
  const renderStretch = async (n: number) => {
    const from = n * STRETCH;
    const own = audible.filter(({ start }) => Math.floor(seconds(start) / STRETCH + 1e-9) === n);
    if (own.length === 0) return;
    const last = Math.max(...own.map(({ start, beats: length }) => seconds(start + length)));
    const context = new Tone.OfflineContext(1, last - from + TAIL, RATE);
    const band = makeBand(sounds, chordSound, { context });
    for (const [part, [decibels, isMuted]] of mix) band.setVolume(part, decibels, isMuted);
    for (const event of own) band.play(event, Math.max(0, seconds(event.start) - from), seconds(event.beats));
    // Everything is laid out in time already: the library's own rendering would run its clock through every block besides.
    const buffer = await (context.rawContext as unknown as OfflineAudioContext).startRendering();
    band.dispose();
    context.dispose();
    const rendered = buffer.getChannelData(0);
    const at = Math.round(from * RATE);
    for (let i = 0; i < rendered.length && at + i < samples.length; i++)
      samples[at + i]! += numberAt(rendered, i);
  };
  const atOnce = Math.min(MOST_AT_ONCE, Math.max(FEWEST_AT_ONCE, navigator.hardwareConcurrency));
  for (let n = 0; n < stretches; n += atOnce) {
    signal?.throwIfAborted();
    const some = Array.from({ length: Math.min(atOnce, stretches - n) }, (_, i) => n + i);
    await Promise.all(some.map(renderStretch));
    onProgress?.((n + some.length) / stretches);
  }
  const peak = samples.reduce((most, sample) => Math.max(most, Math.abs(sample)), 0);
  if (peak > CEILING) samples.forEach((sample, i) => (samples[i] = (sample * CEILING) / peak));
  return { samples, rate: RATE };
}

/** A short note to tune by: a MIDI number, A at 440 Hz unless said. Throws where the browser plays no sound. */
export async function tuningNote(midi = 69): Promise<void> {
  await openSound();
  const synth = new Tone.Synth({ oscillator: { type: 'sine' }, volume: -12 }).toDestination();
  synth.triggerAttackRelease(Tone.Frequency(midi, 'midi').toFrequency(), 2.5);
  setTimeout(() => synth.dispose(), 4000);
}
