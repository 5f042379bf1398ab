/** Pitch and level of a sound, moment by moment. */
import { PitchDetector } from 'pitchy';

/** Samples of a moment and from one to the next. */
const FRAME = 1024;
export const HOP = 512;
/** Below this a moment is not periodic enough to have a pitch. */
const CLEAR = 0.85;

/** Frames after which it is told how much is done: some seconds of sound. */
const TOLD_EVERY = 128;

export interface Frame {
  /** MIDI number with fractions; null where there is none. */
  readonly pitch: number | null;
  /** Root of the mean square. */
  readonly level: number;
}

/** A frequency as a MIDI number with its fraction. */
export const pitchOf = (hertz: number): number => 69 + 12 * Math.log2(hertz / 440);

/** Frames of a sound at a rate; frame i is centred on sample i * HOP. `onShare` is told again and again how much is done, 0 to 1. */
export function framesOf(
  sound: Float32Array,
  rate: number,
  onShare: (share: number) => void = () => undefined
): Frame[] {
  const detector = PitchDetector.forFloat32Array(FRAME);
  const stretch = new Float32Array(FRAME);
  const count = Math.ceil(sound.length / HOP);
  return Array.from({ length: count }, (_, i) => {
    if (i % TOLD_EVERY === 0) onShare(i / count);
    const from = i * HOP - FRAME / 2;
    stretch.fill(0);
    stretch.set(sound.subarray(Math.max(0, from), Math.max(0, from + FRAME)), Math.max(0, -from));
    const level = levelOf(stretch, 0, FRAME);
    if (level < SILENT) return { pitch: null, level };
    const [hertz, clarity] = detector.findPitch(stretch, rate);
    return { pitch: clarity >= CLEAR && hertz > 0 ? pitchOf(hertz) : null, level };
  });
}

/** Levels below are silence. */
export const SILENT = 5e-4;

/** Root of the mean square of the samples from one to another. */
export function levelOf(sound: Float32Array, from: number, to: number): number {
  const [first, last] = [Math.max(0, from), Math.min(to, sound.length)];
  let sum = 0;
  for (let i = first; i < last; i++) sum += sound[i]! * sound[i]!;
  return last > first ? Math.sqrt(sum / (last - first)) : 0;
}
