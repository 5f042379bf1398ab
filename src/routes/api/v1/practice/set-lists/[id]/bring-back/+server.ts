import { answer } from '$lib/server/answer';
import { markSetList } from '$lib/server/practice/set-lists';
import type { RequestHandler } from './$types';

export const POST: RequestHandler = ({ params, locals }) =>
  answer(() => markSetList(locals.db, params.id, null));
