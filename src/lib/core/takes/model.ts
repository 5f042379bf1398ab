/** What was played to Corvel, as notes with times in seconds. */

/** How a pitch moves from its note's start on: cents above or below the note, every `STEP_SECONDS`; null where it cannot be told. */
export type PitchCurve = readonly (number | null)[];

/** Seconds from one point of a pitch curve to the next. */
export const STEP_SECONDS = 512 / 22_050;

/** A note that was played. */
export interface PlayedNote {
  /** Seconds since the sound began. */
  readonly at: number;
  readonly seconds: number;
  /** MIDI number. */
  readonly midi: number;
}

/** A note that was heard in a sound. */
export interface HeardNote extends PlayedNote {
  /** How far it was off its pitch, in cents, once the tuning of the whole instrument is taken out. */
  readonly cents: number;
  /** 0 to 1: how clearly its pitch stood out. */
  readonly confidence: number;
  readonly curve: PitchCurve;
}

/** Some samples in a row as they come in, and the frame of the audio clock at which the first of them did. */
export interface RecordedBlock {
  readonly frame: number;
  readonly samples: Float32Array<ArrayBuffer>;
}

/** What makes a sound hard to read. */
export type Trouble = 'silence' | 'noise' | 'clipped' | 'several notes at once';

export interface Listened {
  readonly notes: readonly HeardNote[];
  /** Of the whole instrument, in cents from A 440. */
  readonly tuning: number;
  readonly troubles: readonly Trouble[];
}
