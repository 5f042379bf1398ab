/** A recording of the player's own: read from a file, and listened to by itself while its beat is tapped. */
import { numberAt } from '$lib/core/base/list';
import * as Tone from 'tone';
import { openSound } from './open';

/** Samples a second that recordings are held in. */
const RATE = 44_100;

/** A file as sound. Rejects where it is none that the browser reads. */
export async function readRecording(file: Blob): Promise<AudioBuffer> {
  return new OfflineAudioContext(1, 1, RATE).decodeAudioData(await file.arrayBuffer());
}

/** The sound as one voice. */
export function mono(buffer: AudioBuffer): Float32Array {
  const samples = new Float32Array(buffer.length);
  for (let channel = 0; channel < buffer.numberOfChannels; channel++) {
    const own = buffer.getChannelData(channel);
    for (let i = 0; i < samples.length; i++) samples[i]! += numberAt(own, i) / buffer.numberOfChannels;
  }
  return samples;
}

export interface Audition {
  /** The second of the recording that is heard now. */
  readonly second: () => number;
  readonly stop: () => void;
}

/** Plays a recording from its beginning. Throws where the browser plays no sound. */
export async function audition(backing: AudioBuffer, onEnd: () => void): Promise<Audition> {
  await openSound();
  const context = Tone.getContext();
  const source = new Tone.ToneBufferSource({
    url: new Tone.ToneAudioBuffer(backing),
    onended: onEnd
  }).toDestination();
  const begun = context.currentTime + 0.1;
  source.start(begun);
  const raw = context.rawContext as AudioContext;
  return {
    second: () => context.currentTime - begun - (raw.outputLatency || raw.baseLatency || 0),
    stop: () => source.dispose()
  };
}
