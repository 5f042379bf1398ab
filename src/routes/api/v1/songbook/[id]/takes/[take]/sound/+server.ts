import { z } from 'zod';
import { answer, parse, readBytes, SOUND_BODY } from '$lib/server/answer';
import { readSound, writeSound } from '$lib/server/takes/sounds';
import { forgetSound, measureSound, openTake } from '$lib/server/takes/takes';
import type { RequestHandler } from './$types';

const place = z.object({
  from: z.coerce.number().int().min(0),
  rate: z.coerce.number().int()
});

/** A piece of the sound: samples of 16 bits, one channel. */
export const PUT: RequestHandler = ({ request, url, params, locals }) =>
  answer(async () => {
    const { from, rate } = parse(place, Object.fromEntries(url.searchParams));
    await openTake(locals.db, params.id, params.take);
    const written = writeSound(locals.db, params.take, {
      from,
      rate,
      samples: await readBytes(request, SOUND_BODY)
    });
    await measureSound(locals.db, params.take);
    return written;
  });

export const GET: RequestHandler = ({ params, locals }) =>
  answer(async () => {
    await openTake(locals.db, params.id, params.take);
    return new Response(readSound(locals.db, params.take), { headers: { 'content-type': 'audio/wav' } });
  });

/** Only the sound: notes and judgement stay. */
export const DELETE: RequestHandler = ({ params, locals }) =>
  answer(() => forgetSound(locals.db, params.id, params.take));
