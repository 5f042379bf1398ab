import { changeTake } from '$lib/api/take';
import { answer, FILE_BODY, parse, readBody } from '$lib/server/answer';
import { deleteTake, editTake, openTake } from '$lib/server/takes/takes';
import type { RequestHandler } from './$types';

export const GET: RequestHandler = ({ params, locals }) =>
  answer(() => openTake(locals.db, params.id, params.take));

export const PUT: RequestHandler = ({ request, params, locals }) =>
  answer(async () =>
    editTake(locals.db, params.id, params.take, parse(changeTake, await readBody(request, FILE_BODY)))
  );

export const DELETE: RequestHandler = ({ params, locals }) =>
  answer(() => deleteTake(locals.db, params.id, params.take));
