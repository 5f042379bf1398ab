import { answer } from '$lib/server/answer';
import { openRevision } from '$lib/server/songbook';
import type { RequestHandler } from './$types';

export const GET: RequestHandler = ({ params, locals }) =>
  answer(() => openRevision(locals.db, params.id, Number(params.version)));
