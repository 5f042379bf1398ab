import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { wavFile } from '../../../audio/wav';
import { NotReadable } from '../not-readable';
import { readWav } from './read';

const LONGEST = 180;

/** A WAV file of any form of samples, written here by hand so that the reader is held against another hand. */
function fileOf(
  { kind, bits, channels, rate }: { kind: number; bits: number; channels: number; rate: number },
  samples: readonly number[],
  write: (view: DataView, at: number, sample: number) => void
): Uint8Array {
  const bytes = (samples.length * bits) / 8;
  // A chunk that says nothing stands before the sound, of an odd length.
  const view = new DataView(new ArrayBuffer(12 + 24 + 12 + 8 + bytes));
  const word = (at: number, text: string) =>
    [...text].forEach((l, i) => view.setUint8(at + i, l.charCodeAt(0)));
  word(0, 'RIFF');
  view.setUint32(4, view.byteLength - 8, true);
  word(8, 'WAVEfmt ');
  view.setUint32(16, 16, true);
  view.setUint16(20, kind, true);
  view.setUint16(22, channels, true);
  view.setUint32(24, rate, true);
  view.setUint16(32, (bits / 8) * channels, true);
  view.setUint16(34, bits, true);
  word(36, 'LIST');
  view.setUint32(40, 3, true);
  word(48, 'data');
  view.setUint32(52, bytes, true);
  samples.forEach((sample, i) => write(view, 56 + (i * bits) / 8, sample));
  return new Uint8Array(view.buffer);
}

const FORMS = [
  {
    kind: 1,
    bits: 8,
    write: (v: DataView, at: number, s: number) => v.setUint8(at, Math.round(s * 127) + 128)
  },
  {
    kind: 1,
    bits: 16,
    write: (v: DataView, at: number, s: number) => v.setInt16(at, Math.round(s * 32767), true)
  },
  {
    kind: 1,
    bits: 24,
    write: (v: DataView, at: number, s: number) => {
      const whole = Math.round(s * 8388607);
      v.setUint16(at, whole & 0xffff, true);
      v.setInt8(at + 2, whole >> 16);
    }
  },
  {
    kind: 1,
    bits: 32,
    write: (v: DataView, at: number, s: number) => v.setInt32(at, Math.round(s * 2147483647), true)
  },
  { kind: 3, bits: 32, write: (v: DataView, at: number, s: number) => v.setFloat32(at, s, true) },
  { kind: 3, bits: 64, write: (v: DataView, at: number, s: number) => v.setFloat64(at, s, true) }
];

describe('a WAV file', () => {
  it('reads what is written', () => {
    fc.assert(
      fc.property(fc.array(fc.float({ min: -1, max: 1, noNaN: true }), { maxLength: 50 }), (samples) => {
        const { samples: read, rate } = readWav(wavFile(Float32Array.from(samples), 44_100), LONGEST);
        expect(rate).toBe(44_100);
        expect(read.length).toBe(samples.length);
        read.forEach((sample, i) => expect(sample).toBeCloseTo(samples[i]!, 3));
      }),
      { numRuns: 30 }
    );
  });

  it.each(FORMS)('reads samples of $bits bits, form $kind, in stereo', ({ kind, bits, write }) => {
    const left = [0, 0.5, -0.5, 0.25];
    const both = left.flatMap((sample) => [sample, -0.25]);
    const { samples } = readWav(fileOf({ kind, bits, channels: 2, rate: 96_000 }, both, write), LONGEST);
    expect(samples.length).toBe(4);
    samples.forEach((sample, i) => expect(sample).toBeCloseTo((left[i]! - 0.25) / 2, 1));
  });

  it('reads a file that is cut short as far as it goes, and says so', () => {
    const whole = wavFile(new Float32Array(1000).fill(0.5), 22_050);
    const read = readWav(whole.subarray(0, 44 + 501), LONGEST);
    expect(read.samples.length).toBe(250);
    expect(read.isCutShort).toBe(true);
    expect(readWav(whole, LONGEST).isCutShort).toBe(false);
  });

  it.each([
    ['nothing', new Uint8Array(0), /no WAV file/],
    ['another kind of file', new TextEncoder().encode('MThd and more than twelve bytes'), /no WAV file/],
    ['a head alone', wavFile(new Float32Array(4), 44_100).subarray(0, 30), /how its samples/],
    ['no sound', wavFile(new Float32Array(4), 44_100).subarray(0, 36), /no sound/],
    [
      'an unknown packing',
      fileOf({ kind: 85, bits: 16, channels: 1, rate: 44_100 }, [0], FORMS[1]!.write),
      /PCM/
    ],
    ['a rate of nothing', wavFile(new Float32Array(4), 10), /samples a second/]
  ])('refuses %s with a sentence', (_, file, message) => {
    expect(() => readWav(file, LONGEST)).toThrow(NotReadable);
    expect(() => readWav(file, LONGEST)).toThrow(message);
  });

  it('refuses what is too long before it reads it', () => {
    const file = wavFile(new Float32Array(8000 * 3), 8000);
    expect(() => readWav(file, 2)).toThrow(/longer than/);
  });

  it('never fails otherwise, whatever the bytes', () => {
    const head = [...wavFile(new Float32Array(8), 44_100)];
    fc.assert(
      fc.property(
        fc.array(fc.tuple(fc.nat(head.length - 1), fc.nat(255)), { maxLength: 8 }),
        fc.nat(head.length),
        (edits, length) => {
          const bytes = Uint8Array.from(head);
          for (const [at, value] of edits) bytes[at] = value;
          try {
            const { samples } = readWav(bytes.subarray(0, length), LONGEST);
            expect(samples.every(Number.isFinite)).toBe(true);
          } catch (thrown) {
            expect(thrown).toBeInstanceOf(NotReadable);
          }
        }
      ),
      { numRuns: 500 }
    );
  });
});
