/** Plays rounds of events on the audio clock, a little ahead of it, at a tempo that may change while it goes. */
import * as Tone from 'tone';
import { beatAt, dueEvents, retimed, stillPlayable, type Anchor, type Round } from '../core/practice/clock';
import type { Part, SoundEvent } from '../core/practice/events';
import { makeBand, type Band } from './voices';

/** Seconds that events are handed to the audio clock before they sound. */
const AHEAD = 0.2;
/** A hidden page may be woken late. */
const AHEAD_HIDDEN = 1.5;
/** What should have sounded longer ago than this is left out, so that nothing piles up after a sleep. */
const TOO_LATE = 0.05;
/** Silence before the first count. */
const BREATH = 0.12;

export interface Program {
  readonly beats: number;
  readonly countIn: readonly SoundEvent[];
  readonly roundOf: (round: number) => Round;
  readonly tempo: number;
}

export class Player {
  #band: Band;
  #ticker: Worker;
  #anchor: Anchor | null = null;
  #program: Program | null = null;
  /** Events before this beat have been handed over. */
  #handed = 0;

  /** What goes to the loudspeaker, listened to. */
  #meter = new Tone.Meter({ normalRange: true, smoothing: 0.5 });

  private constructor() {
    Tone.getDestination().connect(this.#meter);
    this.#band = makeBand();
    this.#ticker = new Worker(new URL('../workers/ticker.ts', import.meta.url), { type: 'module' });
    this.#ticker.onmessage = () => this.#tick();
  }

  /** Opens the sound; to be called from a gesture of the player. Throws where the browser refuses. */
  static async open(): Promise<Player> {
    await Promise.race([
      Tone.start(),
      new Promise((_, refuse) => setTimeout(() => refuse(new Error('The browser gives no sound.')), 4000))
    ]);
    if (Tone.getContext().state !== 'running') throw new Error('The browser gives no sound.');
    return new Player();
  }

  /** Begins from the count-in, or from the first beat where there is none. */
  start(program: Program): void {
    this.stop();
    this.#program = program;
    const beat = program.countIn[0]?.start ?? 0;
    this.#anchor = { second: Tone.getContext().currentTime + BREATH, beat, tempo: program.tempo };
    this.#handed = beat;
    this.#tick();
  }

  stop(): void {
    this.#anchor = null;
    this.#program = null;
    // Voices that have been handed over already end with their band.
    this.#band.dispose();
    this.#band = makeBand();
    for (const [part, [decibels, isMuted]] of this.#mix) this.#band.setVolume(part, decibels, isMuted);
  }

  setTempo(tempo: number): void {
    if (this.#anchor && tempo !== this.#anchor.tempo) {
      this.#anchor = retimed(this.#anchor, Tone.getContext().currentTime, tempo);
    }
  }

  readonly #mix = new Map<Part, [number, boolean]>();
  setVolume(part: Part, decibels: number, isMuted: boolean): void {
    this.#mix.set(part, [decibels, isMuted]);
    this.#band.setVolume(part, decibels, isMuted);
  }

  /** Beats since the first round began, as the ear has it; negative while counting in, null at rest. */
  get beat(): number | null {
    if (!this.#anchor) return null;
    const context = Tone.getContext().rawContext as AudioContext;
    const latency = context.outputLatency || context.baseLatency || 0;
    return beatAt(this.#anchor, Tone.getContext().currentTime - latency);
  }

  /** Loudness of what sounds, 0 to 1. */
  get level(): number {
    const value = this.#meter.getValue();
    return typeof value === 'number' && Number.isFinite(value) ? value : 0;
  }

  close(): void {
    this.#ticker.terminate();
    this.#meter.dispose();
    this.#anchor = null;
    this.#band.dispose();
  }

  #tick(): void {
    const [anchor, program] = [this.#anchor, this.#program];
    if (!anchor || !program) return;
    const now = Tone.getContext().currentTime;
    const horizon = now + (document.hidden ? AHEAD_HIDDEN : AHEAD);
    const to = beatAt(anchor, horizon);
    if (to <= this.#handed) return;
    const due = dueEvents(program.roundOf, program.countIn, program.beats, this.#handed, to);
    for (const { event, second } of stillPlayable(due, anchor, now, TOO_LATE)) {
      if (event.at < 0) this.#band.count(event, second);
      else this.#band.play(event, second, (event.beats * 60) / anchor.tempo);
    }
    this.#handed = to;
  }
}

/** Renders events to sound samples, faster than they play: mono, as many seconds as asked for. */
export async function render(
  events: readonly SoundEvent[],
  tempo: number,
  seconds: number,
  mix: ReadonlyMap<Part, readonly [number, boolean]>
): Promise<Float32Array> {
  const buffer = await Tone.Offline(
    () => {
      const band = makeBand();
      for (const [part, [decibels, isMuted]] of mix) band.setVolume(part, decibels, isMuted);
      for (const event of [...events].sort((a, b) => a.start - b.start)) {
        band.play(event, (event.start * 60) / tempo, (event.beats * 60) / tempo);
      }
    },
    seconds,
    1
  );
  return buffer.getChannelData(0);
}

/** A short A at 440 Hz to tune by. */
export async function tuningNote(): Promise<void> {
  await Tone.start();
  const synth = new Tone.Synth({ oscillator: { type: 'sine' }, volume: -12 }).toDestination();
  synth.triggerAttackRelease(440, 2.5);
  setTimeout(() => synth.dispose(), 4000);
}
