/**
 * The worklet of a recording: hands over what comes in, in batches, each stamped with the frame of its first sample, so that it can be
 * laid against whatever the same clock has played.
 */
import type { RecordedBlock } from '../core/takes/model';

declare const currentFrame: number;
declare function registerProcessor(name: string, processor: new () => object): void;
declare class AudioWorkletProcessor {
  readonly port: MessagePort;
}

/** Samples of a batch: a hundredth of a second, so that a live note is not waited for. */
const BATCH = 512;

class RecorderProcessor extends AudioWorkletProcessor {
  #batch = new Float32Array(BATCH);
  #filled = 0;
  #first = 0;

  constructor() {
    super();
    // What is left is handed over when the recording ends.
    this.port.onmessage = () => this.#handOver();
  }

  process([input]: Float32Array[][]): boolean {
    const block = input?.[0];
    if (!block) return true;
    if (this.#filled === 0) this.#first = currentFrame;
    // The block is the browser's own and is filled again: it has to be copied.
    this.#batch.set(block, this.#filled);
    this.#filled += block.length;
    if (this.#filled + block.length > BATCH) this.#handOver();
    return true;
  }

  #handOver(): void {
    const message: RecordedBlock = { frame: this.#first, samples: this.#batch.slice(0, this.#filled) };
    this.#filled = 0;
    this.port.postMessage(message, [message.samples.buffer]);
  }
}

registerProcessor('corvel-recorder', RecorderProcessor);
