import { answer } from '$lib/server/answer';
import { listRevisions } from '$lib/server/songbook';
import type { RequestHandler } from './$types';

export const GET: RequestHandler = ({ params, locals }) =>
  answer(async () => ({ revisions: await listRevisions(locals.db, params.id) }));
