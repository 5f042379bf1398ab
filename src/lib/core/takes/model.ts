/** What was played to Corvel, as notes with times in seconds. */

import type { Midi, Seconds } from '../base/units';

/** How a pitch moves from its note's start on: cents above or below the note, every `STEP_SECONDS`; null where it cannot be told. */
export type PitchCurve = readonly (number | null)[];

/** Seconds from one point of a pitch curve to the next. */
export const STEP_SECONDS = 512 / 22_050;

/** A note that was played. */
export interface PlayedNote {
  /** Seconds since the sound began. */
  readonly at: Seconds;
  readonly seconds: Seconds;
  /** MIDI number. */
  readonly midi: Midi;
  /** How loud it is against the loudest note, or as a key was struck: above 0, 1 at most. Absent where it is not known. */
  readonly level?: number;
}

/** What a hand does to the pitch of a note that sounds. */
export const PITCH_EVENTS = ['bend', 'release', 'slide', 'vibrato'] as const;
export interface PitchEvent {
  readonly kind: (typeof PITCH_EVENTS)[number];
  /** Seconds since the sound began. */
  readonly at: Seconds;
  /** How far the pitch moved, up above 0; of a vibrato how far it swings to either side. */
  readonly cents: number;
}

/** A note that was heard in a sound. */
export interface HeardNote extends PlayedNote {
  readonly level: number;
  /** How far it was off its pitch, in cents, once the tuning of the whole instrument is taken out. */
  readonly cents: number;
  /** 0 to 1: how likely it was played. */
  readonly confidence: number;
  readonly curve: PitchCurve;
  /** In the order of time. */
  readonly events: readonly PitchEvent[];
}

/** What Corvel itself sounded while a take was played: it may have come in with it. */
export interface KnownSound {
  /** Seconds since the sound of the take began. */
  readonly at: Seconds;
  /** MIDI number; null for drums and the click. */
  readonly midi: Midi | null;
}

/** Some samples in a row as they come in, and the frame of the audio clock at which the first of them did. */
export interface RecordedBlock {
  readonly frame: number;
  readonly samples: Float32Array<ArrayBuffer>;
}

/** What makes a sound hard to read. */
export type SoundFault = 'silence' | 'noise' | 'clipped' | 'several notes at once';

export interface Listened {
  readonly notes: readonly HeardNote[];
  /** Of the whole instrument, in cents from A 440. */
  readonly tuning: number;
  readonly troubles: readonly SoundFault[];
}
