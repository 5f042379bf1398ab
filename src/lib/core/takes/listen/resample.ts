/** Sound at another rate. */

import { nth } from '../../base/list';

/** Zero crossings of the kernel on each side. */
const REACH = 8;
/** Places between two samples for which the kernel is worked out. */
const PHASES = 256;

/**
 * Sound brought to another rate, with what would fold back cut off before: a windowed sinc.
 * @param from samples a second as it is
 * @param to samples a second as it will be
 */
export function resampled(sound: Float32Array, from: number, to: number): Float32Array {
  if (from === to) return sound;
  const step = from / to;
  const cut = 0.95 * Math.min(1, to / from);
  const reach = Math.ceil(REACH / cut);
  const kernels = kernelsOf(cut, reach);
  const out = new Float32Array(Math.floor(sound.length / step));
  for (let i = 0; i < out.length; i++) {
    const place = Math.round(i * step * PHASES);
    const kernel = nth(kernels, place % PHASES);
    const first = Math.floor(place / PHASES) - reach + 1;
    const from = Math.max(0, -first);
    const until = Math.min(kernel.length, sound.length - first);
    let sum = 0;
    for (let k = from; k < until; k++) sum += sound[first + k]! * kernel[k]!;
    out[i] = sum;
  }
  return out;
}

/** Live sound is brought to the same rate again and again. */
const known = new Map<number, Float64Array[]>();

/** For each place between two samples the weights of the `2 · reach` samples round it. */
function kernelsOf(cut: number, reach: number): Float64Array[] {
  const kernels = known.get(cut) ?? newKernels(cut, reach);
  known.set(cut, kernels);
  return kernels;
}

function newKernels(cut: number, reach: number): Float64Array[] {
  return Array.from({ length: PHASES }, (_, phase) =>
    Float64Array.from({ length: 2 * reach }, (_, k) => {
      const x = phase / PHASES + reach - 1 - k;
      const y = Math.PI * cut * x;
      const sinc = x === 0 ? 1 : Math.sin(y) / y;
      return cut * sinc * (0.5 + 0.5 * Math.cos((Math.PI * x) / reach));
    })
  );
}
