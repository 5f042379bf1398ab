import { answer } from '$lib/server/answer';
import { markRow } from '$lib/server/practice/log';
import type { RequestHandler } from './$types';

export const POST: RequestHandler = ({ params, locals }) => answer(() => markRow(locals.db, params.id, null));
