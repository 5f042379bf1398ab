import { changeRow } from '$lib/api/practice';
import { answer, route } from '$lib/server/answer';
import { correctRow, markRow } from '$lib/server/practice/log';
import type { RequestHandler } from './$types';

export const PUT = route(changeRow, (edit, { params, locals }) => correctRow(locals.db, params.id!, edit));

export const DELETE: RequestHandler = ({ params, locals }) =>
  answer(() => markRow(locals.db, params.id, Date.now()));
