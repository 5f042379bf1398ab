import { answer } from '$lib/server/answer';
import { copyNow, listCopies } from '$lib/server/copies';
import type { RequestHandler } from './$types';

export const GET: RequestHandler = ({ locals }) => answer(() => ({ copies: listCopies(locals.db) }));
export const POST: RequestHandler = ({ locals }) => answer(() => copyNow(locals.db, new Date()));
