/** Listening and the simulated player, beside the page. */
import { expose, transfer } from 'comlink';
import { listenTo, onsetSeconds } from '../core/takes/listen/listen';
import type { Listened } from '../core/takes/model';
import type { Stroke } from '../core/takes/player/perform';
import { sounded, type Tone } from '../core/takes/player/string';

/** Samples a second of the simulated player's sound. */
export const PLAYER_RATE = 44_100;

const api = {
  /** The notes of a sound; `onShare` is told how much of it is heard, 0 to 1. */
  listen: (samples: Float32Array, rate: number, onShare?: (share: number) => void): Listened =>
    listenTo(samples, rate, onShare),
  /** The seconds at which something begins in a sound. */
  onsets: (samples: Float32Array, rate: number): number[] => onsetSeconds(samples, rate),
  /** Strokes as the sound of a string. */
  sound(strokes: readonly Stroke[], tone: Tone): Float32Array {
    const samples = sounded(strokes, tone, PLAYER_RATE);
    return transfer(samples, [samples.buffer]);
  }
};
export type ListenerApi = typeof api;

expose(api);
