/** How well notes that were heard agree with those that were played. */
import type { TrueNote } from './set';

const NEAR = 0.05;

export interface Score {
  readonly f: number;
  readonly precision: number;
  readonly recall: number;
  /** Median of heard less played, in seconds. */
  readonly shift: number;
}

/** F of notes: onset within 50 ms, pitch within half a semitone, each note matched once. */
export function scoreOf(heard: readonly TrueNote[], played: readonly TrueNote[]): Score {
  const free = new Set(heard.map((_, i) => i));
  const shifts: number[] = [];
  for (const note of played) {
    let best = -1;
    for (const i of free) {
      const { at, midi } = heard[i]!;
      if (Math.abs(at - note.at) > NEAR || Math.abs(midi - note.midi) >= 0.5) continue;
      if (best < 0 || Math.abs(at - note.at) < Math.abs(heard[best]!.at - note.at)) best = i;
    }
    if (best < 0) continue;
    free.delete(best);
    shifts.push(heard[best]!.at - note.at);
  }
  const hits = shifts.length;
  const precision = heard.length ? hits / heard.length : 0;
  const recall = played.length ? hits / played.length : 0;
  shifts.sort((a, b) => a - b);
  return {
    f: hits ? (2 * precision * recall) / (precision + recall) : 0,
    precision,
    recall,
    shift: shifts[hits >> 1] ?? 0
  };
}
