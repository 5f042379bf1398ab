/** Eight clicks to play with, so that the latency of an input is measured. */
import * as Tone from 'tone';
import { openSound } from '../open';

const COUNT = 8;
/** Seconds from one to the next: a hundred a minute. */
const APART = 0.6;
const BREATH = 0.4;

export interface Clicks {
  /** Seconds of the audio clock at which they are handed to the loudspeaker. */
  readonly at: readonly number[];
  /** Resolves a moment after the last. */
  readonly over: Promise<void>;
  readonly stop: () => void;
}

/** Throws where the browser plays no sound. */
export async function playClicks(): Promise<Clicks> {
  await openSound();
  const begun = Tone.getContext().currentTime + BREATH;
  const at = Array.from({ length: COUNT }, (_, i) => begun + i * APART);
  const synth = new Tone.Synth({
    oscillator: { type: 'triangle' },
    envelope: { attack: 0.001, decay: 0.04, sustain: 0, release: 0.01 },
    volume: -8
  }).toDestination();
  at.forEach((second, i) => synth.triggerAttackRelease(i === 0 ? 1760 : 1320, 0.03, second));
  let finish: () => void;
  const over = new Promise<void>((resolve) => (finish = resolve));
  const timer = setTimeout(() => finish(), 1000 * (BREATH + COUNT * APART));
  return {
    at,
    over,
    stop: () => {
      clearTimeout(timer);
      synth.dispose();
      finish();
    }
  };
}
