/** Samples as a WAV file: mono, 16 bit. */

const HEADER = 44;

export function wavFile(samples: Float32Array, rate: number): Uint8Array<ArrayBuffer> {
  const bytes = new Uint8Array(HEADER + samples.length * 2);
  const view = new DataView(bytes.buffer);
  const word = (at: number, text: string) =>
    [...text].forEach((letter, i) => view.setUint8(at + i, letter.charCodeAt(0)));
  word(0, 'RIFF');
  view.setUint32(4, bytes.length - 8, true);
  word(8, 'WAVEfmt ');
  view.setUint32(16, 16, true);
  view.setUint16(20, 1, true);
  view.setUint16(22, 1, true);
  view.setUint32(24, rate, true);
  view.setUint32(28, rate * 2, true);
  view.setUint16(32, 2, true);
  view.setUint16(34, 16, true);
  word(36, 'data');
  view.setUint32(40, samples.length * 2, true);
  samples.forEach((sample, i) => {
    const bounded = Math.max(-1, Math.min(1, sample));
    view.setInt16(HEADER + 2 * i, Math.round(bounded * 0x7fff), true);
  });
  return bytes;
}
