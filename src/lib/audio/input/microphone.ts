/** The microphone or interface, on the clock that the band is played by. No sound leaves the machine. */
import * as Tone from 'tone';
import { openSound } from '../open';
import type { RecordedBlock } from '../../core/takes/model';
import { blocksOf } from './blocks';

export interface Microphone {
  /** As the browser names it; what was measured of it is kept under it. */
  readonly name: string;
  /** Samples a second. */
  readonly rate: number;
  /** Seconds of the clock that the band is played by. */
  readonly now: () => number;
  /** Seconds from handing a sound to the loudspeaker to its being heard, as the browser says. */
  readonly outputLatency: number;
  readonly flush: () => Promise<void>;
  readonly close: () => void;
}

/** Why there is no microphone, as a sentence for the player. */
const REFUSED: Readonly<Record<string, string>> = {
  NotAllowedError:
    'The browser was not allowed to listen. Allow the microphone for this page in its address bar, then try again.',
  NotFoundError:
    'No microphone or interface is plugged in. Plug one in and try again, or drop a file, or let the simulated player play.',
  NotReadableError:
    'The microphone is taken by another program, or does not answer. Close that program and try again.'
};
const NO_MICROPHONE = 'The microphone cannot be used here. Drop a file, or let the simulated player play.';

/**
 * Opens the microphone, after the browser has asked the player. Everything that browsers do to voices is off: it would eat notes.
 * Throws a sentence where it may not or cannot be used.
 * @param onEnd called where it is unplugged, or its permission is taken back
 * @param device the browser's id of the one that is wanted; the usual one where it is empty or not plugged in
 */
export async function openMicrophone(
  onBlock: (block: RecordedBlock) => void,
  onEnd: () => void,
  device = ''
): Promise<Microphone> {
  const stream = await ask(device);
  const [track] = stream.getAudioTracks();
  try {
    await openSound();
    const context = Tone.getContext().rawContext as unknown as AudioContext;
    const native = nativeOf(context);
    const source = native.createMediaStreamSource(stream);
    const { flush, stop } = await blocksOf(native, source, onBlock);
    track?.addEventListener('ended', onEnd);
    return {
      name: track?.label || 'microphone',
      rate: native.sampleRate,
      now: () => native.currentTime,
      outputLatency: native.outputLatency || native.baseLatency || 0,
      flush,
      close: () => {
        track?.removeEventListener('ended', onEnd);
        stop();
        source.disconnect();
        for (const own of stream.getTracks()) own.stop();
      }
    };
  } catch (error) {
    for (const own of stream.getTracks()) own.stop();
    throw error instanceof Error && error.message ? error : new Error(NO_MICROPHONE, { cause: error });
  }
}

async function ask(device: string): Promise<MediaStream> {
  try {
    return await navigator.mediaDevices.getUserMedia({
      audio: {
        echoCancellation: false,
        noiseSuppression: false,
        autoGainControl: false,
        channelCount: 1,
        ...(device ? { deviceId: device } : {})
      }
    });
  } catch (error) {
    const name = error instanceof Error ? error.name : '';
    throw new Error(REFUSED[name] ?? NO_MICROPHONE, { cause: error });
  }
}

/** The browser's own context: the sound library may have wrapped it. */
function nativeOf(context: AudioContext): AudioContext {
  return (context as unknown as { _nativeContext?: AudioContext })._nativeContext ?? context;
}
