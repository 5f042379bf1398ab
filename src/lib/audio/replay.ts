/** Plays the sound of a take, or a stretch of it again and again. */
import * as Tone from 'tone';
import { openSound } from './open';

export interface Replay {
  /** The second of the sound that is heard now. */
  readonly second: () => number;
  readonly stop: () => void;
}

const BREATH = 0.08;

/** Plays some samples from one second to another, once or looped. Throws where the browser plays no sound. */
export async function replay(
  { samples, rate }: { readonly samples: Float32Array<ArrayBuffer>; readonly rate: number },
  { from, to, isLooped }: { readonly from: number; readonly to: number; readonly isLooped: boolean },
  onEnd: () => void
): Promise<Replay> {
  await openSound();
  const context = Tone.getContext();
  const buffer = context.createBuffer(1, Math.max(1, samples.length), rate);
  buffer.copyToChannel(samples, 0);
  const source = new Tone.ToneBufferSource({
    url: new Tone.ToneAudioBuffer(buffer),
    loop: isLooped,
    loopStart: from,
    loopEnd: to,
    fadeIn: 0.01,
    fadeOut: 0.02,
    onended: onEnd
  }).toDestination();
  const begun = context.currentTime + BREATH;
  if (isLooped) source.start(begun, from);
  else source.start(begun, from, Math.max(0.05, to - from));
  const raw = context.rawContext as AudioContext;
  const length = Math.max(0.05, to - from);
  return {
    second: () => {
      const gone = context.currentTime - begun - (raw.outputLatency || raw.baseLatency || 0);
      return from + (isLooped ? ((gone % length) + length) % length : gone);
    },
    stop: () => source.dispose()
  };
}
