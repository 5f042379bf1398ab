/** A recording slower or faster at its own pitch, made ahead of its being played. */
import SignalsmithStretch from 'signalsmith-stretch';
// The thread that makes the sound reads the same module as a file: a script in a blob is against the policy.
import moduleUrl from 'signalsmith-stretch?url';

/** Seconds of sound that are stretched at most: what is longer would take too much memory. */
export const LONGEST_STRETCHED = 420;
/** Seconds after which a thread that does not answer is given up. */
const PATIENCE = 10;

/**
 * The whole of a recording at another speed.
 * @param rate how much faster than it was made; 0.5 is half speed
 * @throws where it would be longer than `LONGEST_STRETCHED`, or the browser does not let the stretcher work
 */
export async function stretched(sound: AudioBuffer, rate: number): Promise<AudioBuffer> {
  const seconds = sound.duration / rate;
  if (seconds > LONGEST_STRETCHED) throw new Error('The recording is too long to be stretched.');
  const { sampleRate, numberOfChannels } = sound;
  const context = new OfflineAudioContext(numberOfChannels, Math.ceil(seconds * sampleRate), sampleRate);
  SignalsmithStretch.moduleUrl = moduleUrl;
  const node = await within(
    SignalsmithStretch(context, {
      numberOfInputs: 0,
      numberOfOutputs: 1,
      outputChannelCount: [numberOfChannels]
    })
  );
  const channels = Array.from({ length: numberOfChannels }, (_, i) => sound.getChannelData(i).slice());
  await within(node.addBuffers(channels));
  await within(node.schedule({ active: true, input: 0, output: 0, rate }));
  node.connect(context.destination);
  return context.startRendering();
}

/** A thread that the policy of a page forbids says nothing at all. */
function within<T>(promise: Promise<T>): Promise<T> {
  return Promise.race([
    promise,
    new Promise<never>((_, reject) =>
      setTimeout(() => reject(new Error('The stretcher does not answer.')), PATIENCE * 1000)
    )
  ]);
}
