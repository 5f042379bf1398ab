import { describe, expect, it } from 'vitest';
import { wavFile } from './wav';

describe('a WAV file', () => {
  const samples = Float32Array.of(0, 0.5, -0.5, 2, -2);
  const bytes = wavFile(samples, 44_100);
  const view = new DataView(bytes.buffer);
  const text = (at: number) => String.fromCharCode(...bytes.slice(at, at + 4));

  it('says what it holds', () => {
    expect([text(0), text(8), text(12), text(36)]).toEqual(['RIFF', 'WAVE', 'fmt ', 'data']);
    expect(view.getUint32(4, true)).toBe(bytes.length - 8);
    expect(view.getUint16(22, true)).toBe(1);
    expect(view.getUint32(24, true)).toBe(44_100);
    expect(view.getUint32(28, true)).toBe(88_200);
    expect(view.getUint16(34, true)).toBe(16);
    expect(view.getUint32(40, true)).toBe(samples.length * 2);
  });

  it('keeps loud samples inside its range', () => {
    const values = Array.from({ length: 5 }, (_, i) => view.getInt16(44 + 2 * i, true));
    expect(values).toEqual([0, 16384, -16383, 32767, -32767]);
  });

  it('may be empty', () => {
    expect(wavFile(new Float32Array(0), 48_000)).toHaveLength(44);
  });
});
