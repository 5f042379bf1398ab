/** Sound as it comes in: blocks on the clock of an audio context. */
import type { RecordedBlock } from '../../core/takes/model';
import recorderUrl from '../../workers/recorder?worker&url';

/** Leads a source into blocks. The same for a microphone and for a context that is rendered. */
export async function blocksOf(
  context: BaseAudioContext,
  source: AudioNode,
  onBlock: (block: RecordedBlock) => void
): Promise<{ readonly flush: () => Promise<void>; readonly stop: () => void }> {
  await context.audioWorklet.addModule(recorderUrl);
  const node = new AudioWorkletNode(context, 'corvel-recorder', {
    channelCount: 1,
    channelCountMode: 'explicit',
    numberOfOutputs: 0
  });
  let onFlushed: (() => void) | null = null;
  node.port.onmessage = ({ data }: MessageEvent<RecordedBlock>) => {
    if (data.samples.length) onBlock(data);
    onFlushed?.();
    onFlushed = null;
  };
  source.connect(node);
  return {
    /** Hands over what has come in and was not yet handed over. */
    flush: () =>
      new Promise((resolve) => {
        onFlushed = resolve;
        node.port.postMessage('flush');
      }),
    stop: () => {
      source.disconnect(node);
      node.port.close();
    }
  };
}
