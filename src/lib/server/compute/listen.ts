/** The route that listens: a WAV file in, notes out. Contract: docs/api.md. */
import { fail } from '../../api/errors';
import { MAX_SOUND_SECONDS } from '../../api/limits';
import { NotReadable } from '../../core/formats/not-readable';
import { readWav } from '../../core/formats/wav/read';
import { listenTo } from '../../core/takes/listen/listen';

/** POST /api/v1/listen */
export function answerListen({ wav }: { readonly wav: Uint8Array }) {
  const { samples, rate, isCutShort } = readOrRefuse(wav);
  const { notes, tuning, troubles } = listenTo(samples, rate);
  return {
    notes: notes.map(({ at, seconds, ...note }) => ({
      at: toMillis(at),
      seconds: toMillis(seconds),
      ...note
    })),
    tuning,
    seconds: toMillis(samples.length / rate),
    troubles: [...troubles, ...(isCutShort ? (['cut short'] as const) : [])]
  };
}

const toMillis = (seconds: number) => Math.round(seconds * 1000) / 1000;

function readOrRefuse(wav: Uint8Array) {
  try {
    return readWav(wav, MAX_SOUND_SECONDS);
  } catch (thrown) {
    if (thrown instanceof NotReadable) return fail(400, { code: 'bad-sound', message: thrown.message });
    throw thrown;
  }
}
