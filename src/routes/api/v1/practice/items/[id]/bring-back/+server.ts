import { answer } from '$lib/server/answer';
import { markItem } from '$lib/server/practice/items';
import type { RequestHandler } from './$types';

export const POST: RequestHandler = ({ params, locals }) =>
  answer(() => markItem(locals.db, params.id, null));
