import { changeLick } from '$lib/api/lick';
import { answer, route } from '$lib/server/answer';
import { editLick, markLick } from '$lib/server/licks';
import type { RequestHandler } from './$types';

export const PUT = route(changeLick, (edit, { params, locals }) => editLick(locals.db, params.id!, edit));

export const DELETE: RequestHandler = ({ params, locals }) =>
  answer(() => markLick(locals.db, params.id, Date.now()));
