import { changeSetList } from '$lib/api/practice';
import { answer, route } from '$lib/server/answer';
import { editSetList, markSetList } from '$lib/server/practice/set-lists';
import type { RequestHandler } from './$types';

export const PUT = route(changeSetList, (edit, { params, locals }) =>
  editSetList(locals.db, params.id!, edit)
);

export const DELETE: RequestHandler = ({ params, locals }) =>
  answer(() => markSetList(locals.db, params.id, Date.now()));
