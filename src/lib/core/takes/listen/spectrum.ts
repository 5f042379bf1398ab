/** Magnitudes of short stretches of sound. */
import FFT from 'fft.js';

/** Measures stretches of up to `size` samples, which is a power of two; shorter ones are filled up with silence. */
export class Spectrum {
  readonly bins: number;
  readonly #fft: FFT;
  readonly #input: Float64Array;
  readonly #output: Float64Array;
  readonly #windows = new Map<number, Float64Array>();

  constructor(readonly size: number) {
    this.#fft = new FFT(size);
    this.bins = size / 2;
    this.#input = new Float64Array(size);
    this.#output = new Float64Array(2 * size);
  }

  /**
   * Magnitudes of the bins 0 up to half the rate, of `length` samples from `from` under a raised cosine, scaled so that a sine of
   * amplitude 1 gives 1. What lies outside the sound is silence.
   */
  magnitudes(
    sound: Float32Array,
    from: number,
    length: number,
    out = new Float32Array(this.bins)
  ): Float32Array {
    const window = this.#windowOf(length);
    this.#input.fill(0);
    const [first, last] = [Math.max(0, -from), Math.min(length, sound.length - from)];
    for (let i = first; i < last; i++) this.#input[i] = sound[from + i]! * window[i]!;
    this.#fft.realTransform(this.#output, this.#input);
    const scale = 4 / length;
    for (let bin = 0; bin < this.bins; bin++) {
      // Not `Math.hypot`: it guards against numbers that sound never has, and takes ten times as long.
      const [real, imaginary] = [this.#output[2 * bin]!, this.#output[2 * bin + 1]!];
      out[bin] = scale * Math.sqrt(real * real + imaginary * imaginary);
    }
    return out;
  }

  #windowOf(length: number): Float64Array {
    let window = this.#windows.get(length);
    if (!window) {
      window = Float64Array.from(
        { length },
        (_, i) => 0.5 - 0.5 * Math.cos((2 * Math.PI * (i + 0.5)) / length)
      );
      this.#windows.set(length, window);
    }
    return window;
  }
}
