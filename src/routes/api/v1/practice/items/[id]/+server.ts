import { changeItem } from '$lib/api/practice';
import { answer, route } from '$lib/server/answer';
import { editItem, markItem } from '$lib/server/practice/items';
import type { RequestHandler } from './$types';

export const PUT = route(changeItem, (edit, { params, locals }) => editItem(locals.db, params.id!, edit));

export const DELETE: RequestHandler = ({ params, locals }) =>
  answer(() => markItem(locals.db, params.id, Date.now()));
