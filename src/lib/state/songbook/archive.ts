/** Everything in one file, as the page saves it and sends it in. */
import type { ArchiveImported, ArchiveLook, Merge } from '$lib/api/archive';
import type { ApiError } from '$lib/api/errors';

export const archivePath = (withSounds: boolean) => `/api/v1/archive?sounds=${withSounds ? 'yes' : 'no'}`;

/** Sends an archive; `onProgress` is told how much of it has gone, 0 to 1. Ends early where the signal says so. */
function send<T>(
  file: Blob,
  merge: Merge | 'look',
  onProgress: (done: number) => void,
  signal: AbortSignal
): Promise<T> {
  // The only way by which a browser tells how far a sending is.
  const request = new XMLHttpRequest();
  return new Promise((resolve, reject) => {
    const stop = () => request.abort();
    request.open('POST', `/api/v1/archive?merge=${merge}`);
    request.responseType = 'json';
    request.upload.onprogress = ({ loaded, total }) => onProgress(total ? loaded / total : 0);
    request.onload = () => {
      const answer = request.response as (T & { error?: ApiError }) | null;
      if (request.status < 400 && answer) resolve(answer);
      else reject(new Error(answer?.error?.message ?? 'That did not work; nothing was changed.'));
    };
    request.onerror = () =>
      reject(new Error('Corvel’s server does not answer; nothing was changed. Try again in a moment.'));
    request.onabort = () => reject(new DOMException('Stopped.', 'AbortError'));
    request.onloadend = () => signal.removeEventListener('abort', stop);
    signal.addEventListener('abort', stop);
    request.send(file);
  });
}

export const lookIntoArchive = (file: Blob, onProgress: (done: number) => void, signal: AbortSignal) =>
  send<ArchiveLook>(file, 'look', onProgress, signal);
export const importArchive = (
  file: Blob,
  merge: Merge,
  onProgress: (done: number) => void,
  signal: AbortSignal
) => send<ArchiveImported>(file, merge, onProgress, signal);
