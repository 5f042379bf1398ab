/** An ear while it is played: the microphone or a MIDI instrument, note by note. Nothing of it is kept. */
import { wrap, type Remote } from 'comlink';
import type { Microphone } from '$lib/audio/input/microphone';
import { settings } from '../settings.svelte';
import type { LiveMoment, LiveNote } from '$lib/core/takes/listen/live';
import type { RecordedBlock } from '$lib/core/takes/model';
import type { EarApi } from '../../workers/ear';
import EarWorker from '../../workers/ear?worker';
import { latencyOf, MIDI_INPUT } from './latency';

/** Where notes come from. */
export const EAR_INPUTS = ['microphone', 'midi'] as const;
export type EarInput = (typeof EAR_INPUTS)[number];

const NO_MIDI = 'This browser can’t use MIDI instruments. Listen with the microphone instead.';
const NO_INSTRUMENT = 'No MIDI instrument is plugged in. Plug one in and try again.';
const GONE = 'The microphone was disconnected. Plug it in again and press listen.';
const NOTHING_ARRIVES = 'Listening could not be loaded; the server does not answer. Try again in a moment.';

/** Who wants to know. Seconds are those of the audio clock. */
export interface Listener {
  /** Of each note as it begins. */
  readonly onNote?: (note: LiveNote) => void;
  /** Of each note that is held for a moment: a voice that looks for its pitch is not taken at its first word. */
  readonly onHeld?: (midi: number) => void;
  readonly onMoment?: (moment: LiveMoment) => void;
  /** Seconds of sound that a pitch is told from. */
  readonly steady?: number;
  /** Times are told as they come in: what is known of the input's latency is not taken out. */
  readonly isRaw?: true;
}

/** Milliseconds from one moment of an instrument that sends notes to the next. */
const MOMENT = 50;
/** A pitch this near a note is that note, in semitones. */
const SAME = 0.5;
/** Levels that are told apart. */
const LEVELS = 40;
/** Seconds for which a note is held before it counts. */
const HELD = 0.25;

export class Ear {
  readonly #listener: Listener;
  /** The input that is listened to; null where none is. */
  input: EarInput | null = $state(null);
  isAsking = $state(false);
  problem = $state('');
  /** Loudest sample lately, 0 to 1. */
  level = $state(0);
  /** MIDI number of the note that sounds; null in silence. */
  sounds: number | null = $state(null);
  #close: (() => void) | null = null;
  /** When the note began that was last told as held. */
  #held = -Infinity;
  /** Counts openings, so that a late answer to a press that was taken back is let go. */
  #turn = 0;

  constructor(listener: Listener = {}) {
    this.#listener = listener;
  }

  /** Listens to an input, or stops listening to it. */
  async toggle(input: EarInput): Promise<void> {
    const wasOn = this.input === input;
    this.close();
    if (!wasOn) await this.open(input);
  }

  async open(input: EarInput): Promise<void> {
    this.close();
    this.problem = '';
    this.isAsking = true;
    const turn = this.#turn;
    try {
      const close = await (input === 'midi' ? this.#openMidi() : this.#openMicrophone());
      if (turn !== this.#turn) return close();
      this.#close = close;
      this.input = input;
    } catch (error) {
      if (turn === this.#turn) this.problem = (error as Error).message;
    } finally {
      if (turn === this.#turn) this.isAsking = false;
    }
  }

  async #openMicrophone(): Promise<() => void> {
    const audio = await import('$lib/audio/input/microphone').catch(() => null);
    if (!audio) throw new Error(NOTHING_ARRIVES);
    const worker = new EarWorker();
    const ear: Remote<EarApi> = wrap<EarApi>(worker);
    let microphone: Microphone | null = null;
    const hear = async (block: RecordedBlock) => {
      const moment = await ear.hear(block);
      if (moment && microphone) this.#hear(moment, latencyOf(microphone.name) ?? microphone.outputLatency);
    };
    try {
      microphone = await audio.openMicrophone(
        (block) => void hear(block),
        () => {
          this.close();
          this.problem = GONE;
        },
        settings.now.input
      );
      await ear.begin(microphone.rate, this.#listener.steady);
    } catch (error) {
      worker.terminate();
      throw error;
    }
    return () => {
      microphone?.close();
      microphone = null;
      worker.terminate();
    };
  }

  #hear(moment: LiveMoment, latency: number): void {
    // So fine as it is drawn, or the page would be drawn anew with every block.
    this.level = Math.round(moment.peak * LEVELS) / LEVELS;
    const earlier = (note: LiveNote): LiveNote => ({ ...note, at: note.at - latency });
    this.#tell({
      ...moment,
      at: moment.at - latency,
      sounds: moment.sounds && earlier(moment.sounds),
      began: moment.began.map(earlier)
    });
  }

  #tell(moment: LiveMoment): void {
    const { at, sounds, began, pitch } = moment;
    this.sounds = sounds?.midi ?? null;
    for (const note of began) this.#listener.onNote?.(note);
    this.#listener.onMoment?.(moment);
    if (!sounds || at - sounds.at < HELD || sounds.at === this.#held) return;
    // What was struck has to be what still sounds.
    if (pitch === null || Math.abs(pitch - sounds.midi) > SAME) return;
    this.#held = sounds.at;
    this.#listener.onHeld?.(sounds.midi);
  }

  async #openMidi(): Promise<() => void> {
    const [midi, sound] = await Promise.all([
      import('$lib/audio/midi-in').catch(() => null),
      import('$lib/audio/open').catch(() => null)
    ]);
    if (!midi || !sound) throw new Error(NOTHING_ARRIVES);
    await sound.openSound();
    /** A moment of the page's clock, in milliseconds, as a second of the audio clock. */
    const latency = this.#listener.isRaw ? 0 : (latencyOf(MIDI_INPUT) ?? 0);
    const secondOf = (at: number) => sound.audioSecond() - (performance.now() - at) / 1000 - latency;
    let sounds: LiveNote | null = null;
    const tell = (at: number, began: LiveNote[]) =>
      this.#tell({ at: secondOf(at), peak: this.level, pitch: sounds?.midi ?? null, sounds, began });
    const stop = await midi
      .listenToMidi(
        ({ midi: own, at }) => {
          sounds = { at: secondOf(at), midi: own };
          this.level = 1;
          tell(at, [sounds]);
          // A key is meant at once.
          this.#held = sounds.at;
          this.#listener.onHeld?.(own);
        },
        ({ midi: own, at }) => {
          if (sounds?.midi !== own) return;
          sounds = null;
          this.level = 0;
          tell(at, []);
        }
      )
      .catch(() => {
        throw new Error(NO_MIDI);
      });
    if (midi.midiInputs() === 0) {
      stop();
      throw new Error(NO_INSTRUMENT);
    }
    // Silence is told as well: it sends nothing by itself.
    const timer = setInterval(() => tell(performance.now(), []), MOMENT);
    return () => {
      clearInterval(timer);
      stop();
    };
  }

  close(): void {
    this.#turn += 1;
    this.#close?.();
    this.#close = null;
    this.input = null;
    this.isAsking = false;
    this.level = 0;
    this.sounds = null;
  }
}
