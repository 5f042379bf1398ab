/** What a format is, and what it is made of. */
import type { Meter } from '$lib/core/chart/model';
import type { Key } from '$lib/core/harmony/key';
import type { ChordSound, Feel } from '$lib/core/practice/feel';
import type { Part } from '$lib/core/practice/events';
import type { PracticeRound } from '$lib/core/practice/round';

export interface Format<Subject> {
  readonly id: string;
  readonly name: string;
  readonly hint: string;
  /** Said where it fails. */
  readonly failure: string;
  /** Rejects with the reason of the signal where it is stopped. */
  readonly make: (subject: Subject, work?: Work) => Promise<Blob>;
}

/** Long work that tells how far it is and can be stopped. */
export interface Work {
  /** Told how much is done, 0 to 1. */
  readonly onProgress: (done: number) => void;
  readonly signal: AbortSignal;
}

/** A round of practice as it sounds. */
export interface Piece {
  readonly round: PracticeRound;
  readonly title: string;
  readonly meter: Meter;
  readonly key: Key;
  readonly feel: Feel;
  /** Beats a minute as they sound. */
  readonly tempo: number;
  readonly chordSound: ChordSound;
  readonly mix: Readonly<Record<Part, { readonly decibels: number; readonly isMuted: boolean }>>;
}
