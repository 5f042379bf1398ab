/** Listening and the simulated player, beside the page. */
import { expose, transfer } from 'comlink';
import { listenTo, onsetSeconds } from '../core/takes/listen/listen';
import type { KnownSound, Listened } from '../core/takes/model';
import { through, type Effect } from '../core/takes/player/effects';
import type { Stroke } from '../core/takes/player/perform';
import { sounded, type Tone } from '../core/takes/player/string';

/** Samples a second of the simulated player's sound. */
export const PLAYER_RATE = 44_100;

/** How much more has to be done before it is told again: a page that is busy is not flooded. */
const TOLD_EVERY = 0.04;

const api = {
  /** The notes of a sound; `onShare` is told how much of it is heard, 0 to 1. `known`: what Corvel sounded meanwhile. */
  listen(
    samples: Float32Array,
    rate: number,
    onShare?: (share: number) => void,
    known?: readonly KnownSound[]
  ): Listened {
    let told = 0;
    const tell = (share: number) => {
      if (share - told < TOLD_EVERY) return;
      told = share;
      onShare?.(share);
    };
    return listenTo(samples, rate, tell, known);
  },
  /** The seconds at which something begins in a sound. */
  onsets: (samples: Float32Array, rate: number): number[] => onsetSeconds(samples, rate),
  /** Strokes as the sound of a string, through an effect where there is one. */
  sound(strokes: readonly Stroke[], tone: Tone, effect?: Effect): Float32Array {
    const dry = sounded(strokes, tone, PLAYER_RATE);
    const samples = effect ? through(effect, dry, PLAYER_RATE) : dry;
    return transfer(samples, [samples.buffer]);
  }
};
export type ListenerApi = typeof api;

expose(api);
