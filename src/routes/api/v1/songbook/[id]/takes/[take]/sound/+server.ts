import { SOUND_BODY } from '$lib/server/web/answer';
import { answer, ask, writing } from '$lib/server/web/ask';
import { fileResponse } from '$lib/server/files/file-response';
import type { RequestHandler } from './$types';

/** A piece of the sound: samples of 16 bits, one channel. */
export const PUT = writing('sound.keep', { body: SOUND_BODY });

/** The sound as a WAV file, or the part of it that `Range` asks for. */
export const GET: RequestHandler = ({ request, params }) =>
  answer(async () => {
    const { path, bytes } = await ask<{ path: string; bytes: number }>('sound.place', { params });
    return fileResponse(path, bytes, 'audio/wav', request.headers.get('range'));
  });

/** Only the sound: notes and judgement stay. */
export const DELETE = writing('sound.delete');
