/** The frame of every route: bounded body, errors as sentences. */
import { json } from '@sveltejs/kit';
import { fail, PlayerError, type ApiError } from '../../api/errors';
import {
  MAX_BODY_BYTES,
  MAX_FILE_BODY_BYTES,
  MAX_FILE_BYTES,
  MAX_SOUND_BYTES,
  MAX_SOUND_SECONDS
} from '../../api/limits';
import { fileProblem } from './failure';

/** Bytes of a body that is too large which are still taken in, so that the answer reaches whoever sends them. */
const DRAINED = 32 * 1024 * 1024;

/** Reads a body of bounded size. */
export async function readBytes(
  request: Request,
  { most, tooLarge }: BodyBound
): Promise<Uint8Array<ArrayBuffer>> {
  const chunks: Uint8Array[] = [];
  let size = 0;
  // Node's body streams are async iterable, which the types of the web's streams do not say.
  const body = (request.body ?? []) as unknown as AsyncIterable<Uint8Array>;
  for await (const chunk of body) {
    size += chunk.length;
    if (size <= most) chunks.push(chunk);
    else if (size > DRAINED) break;
  }
  if (size > most) fail(413, { code: 'too-large', message: tooLarge });
  // Memory of its own, which can be handed to a thread.
  const bytes = new Uint8Array(size);
  let at = 0;
  for (const chunk of chunks) {
    bytes.set(chunk, at);
    at += chunk.length;
  }
  return bytes;
}

/** How large a body may be, and what is said of one that is larger. */
export interface BodyBound {
  readonly most: number;
  readonly tooLarge: string;
}

export const CHART_BODY: BodyBound = {
  most: MAX_BODY_BYTES,
  tooLarge: `The request is larger than ${MAX_BODY_BYTES / 1024} KiB; charts may be up to 64 KiB.`
};

export const FILE_BODY: BodyBound = {
  most: MAX_FILE_BODY_BYTES,
  tooLarge: `The file is larger than ${MAX_FILE_BYTES / 1024 / 1024} MiB; save a part of it, or without sounds and pictures.`
};

/** A sound, which only the routes that take one let in. */
export const SOUND_BODY: BodyBound = {
  most: MAX_SOUND_BYTES,
  tooLarge: `The sound is larger than ${MAX_SOUND_BYTES / 1024 / 1024} MiB; Corvel hears up to ${MAX_SOUND_SECONDS / 60} minutes at once, best in mono.`
};

/** An error in the form in which all of them are told. */
export function errorResponse(status: number, error: ApiError, extra: object = {}): Response {
  return json({ error, ...extra }, { status });
}

/** The answer to whatever was thrown. */
export function answerToError(thrown: unknown): Response {
  const told = thrown instanceof PlayerError ? thrown : fileProblem(thrown);
  if (told) return errorResponse(told.status, told.error, told.extra);
  console.error(thrown);
  return errorResponse(500, {
    code: 'internal',
    message: 'Corvel could not answer this; the fault is its own, and nothing of yours was changed.'
  });
}
