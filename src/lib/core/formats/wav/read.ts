/** Reads a WAV file into one channel of samples. Source: the RIFF form as it is published: chunks of four letters, a length and data. */
import { NotReadable } from '../not-readable';

export interface Recorded {
  /** One channel, full scale −1 to 1: the mean of those in the file. */
  readonly samples: Float32Array<ArrayBuffer>;
  /** Samples a second. */
  readonly rate: number;
  /** The file ends before it says it would. */
  readonly isCutShort: boolean;
}

/** Forms of samples, by the number that names them. */
const PCM = 1;
const FLOAT = 3;
/** The form stands behind, in the first two bytes of a longer field. */
const EXTENSIBLE = 0xfffe;

/** Rates between which a sound can be read. */
const RATES = { least: 8000, most: 192_000 } as const;
const MOST_CHANNELS = 32;

type Reader = (view: DataView, at: number) => number;

/** How one sample is read, by form and bits. */
const READERS: Readonly<Record<string, Reader>> = {
  [`${PCM}/8`]: (view, at) => (view.getUint8(at) - 128) / 128,
  [`${PCM}/16`]: (view, at) => view.getInt16(at, true) / 2 ** 15,
  [`${PCM}/24`]: (view, at) => (view.getUint16(at, true) + view.getInt8(at + 2) * 2 ** 16) / 2 ** 23,
  [`${PCM}/32`]: (view, at) => view.getInt32(at, true) / 2 ** 31,
  [`${FLOAT}/32`]: (view, at) => view.getFloat32(at, true),
  [`${FLOAT}/64`]: (view, at) => view.getFloat64(at, true)
};

interface Form {
  readonly read: Reader;
  readonly channels: number;
  readonly rate: number;
  readonly bytes: number;
}

/**
 * The sound of a WAV file. One that is cut short is read as far as it goes. Throws `NotReadable`.
 * @param mostSeconds longer ones are refused
 */
export function readWav(file: Uint8Array, mostSeconds: number): Recorded {
  const view = new DataView(file.buffer, file.byteOffset, file.byteLength);
  if (view.byteLength < 12 || word(view, 0) !== 'RIFF' || word(view, 8) !== 'WAVE') {
    throw new NotReadable(
      'This is no WAV file. Save the sound as WAV (PCM), or drop it on a take, where other forms are read.'
    );
  }
  let form: Form | null = null;
  for (let at = 12; at + 8 <= view.byteLength;) {
    const [name, size] = [word(view, at), view.getUint32(at + 4, true)];
    const from = at + 8;
    if (name === 'fmt ') form = formOf(view, from, size);
    if (name === 'data') {
      if (!form) throw new NotReadable('This WAV file does not say how its samples are written.');
      return samplesOf(view, from, size, form, mostSeconds);
    }
    // Chunks are padded to an even length.
    at = from + size + (size % 2);
  }
  throw new NotReadable('There is no sound in this WAV file.');
}

function word(view: DataView, at: number): string {
  return String.fromCharCode(...[0, 1, 2, 3].map((i) => view.getUint8(at + i)));
}

function formOf(view: DataView, from: number, size: number): Form {
  if (size < 16 || from + 16 > view.byteLength) {
    throw new NotReadable('This WAV file ends before it says how its samples are written.');
  }
  const named = view.getUint16(from, true);
  const isLong = named === EXTENSIBLE && size >= 26 && from + 26 <= view.byteLength;
  const kind = isLong ? view.getUint16(from + 24, true) : named;
  const channels = view.getUint16(from + 2, true);
  const rate = view.getUint32(from + 4, true);
  const bits = view.getUint16(from + 14, true);
  const read = READERS[`${kind}/${bits}`];
  if (!read) {
    throw new NotReadable(
      'The samples of this WAV file are packed in a way that is not read here; save it as PCM, 16 or 24 bit.'
    );
  }
  if (channels < 1 || channels > MOST_CHANNELS) {
    throw new NotReadable(`This WAV file has ${channels} channels; save it in mono or stereo.`);
  }
  if (rate < RATES.least || rate > RATES.most) {
    throw new NotReadable(
      `This WAV file has ${rate} samples a second; ${RATES.least} to ${RATES.most} can be read.`
    );
  }
  return { read, channels, rate, bytes: bits / 8 };
}

function samplesOf(view: DataView, from: number, size: number, form: Form, mostSeconds: number): Recorded {
  const { read, channels, rate, bytes } = form;
  const there = Math.min(size, view.byteLength - from);
  const count = Math.floor(there / (bytes * channels));
  if (count > mostSeconds * rate) {
    throw new NotReadable(
      `This sound is longer than ${mostSeconds / 60} minutes; cut out the part that you want to hear about.`
    );
  }
  const samples = new Float32Array(count);
  for (let i = 0; i < count; i++) {
    let sum = 0;
    for (let channel = 0; channel < channels; channel++) {
      sum += read(view, from + (i * channels + channel) * bytes);
    }
    // A float file may hold anything; what is no number is silence.
    samples[i] = Number.isFinite(sum) ? sum / channels : 0;
  }
  // Recorders that were stopped half-way leave a length of nothing, or of all that there could be.
  return { samples, rate, isCutShort: there < size };
}
