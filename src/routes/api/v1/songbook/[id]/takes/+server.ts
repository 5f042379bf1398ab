import { keepTake } from '$lib/api/take';
import { answer, FILE_BODY, parse, readBody } from '$lib/server/answer';
import { keepNewTake, listTakes } from '$lib/server/takes/takes';
import type { RequestHandler } from './$types';

export const GET: RequestHandler = ({ params, locals }) =>
  answer(async () => ({ takes: await listTakes(locals.db, params.id) }));

export const POST: RequestHandler = ({ request, params, locals }) =>
  answer(async () => keepNewTake(locals.db, params.id, parse(keepTake, await readBody(request, FILE_BODY))));
