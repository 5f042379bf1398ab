import { answer } from '$lib/server/answer';
import { markLick } from '$lib/server/licks';
import type { RequestHandler } from './$types';

export const POST: RequestHandler = ({ params, locals }) =>
  answer(() => markLick(locals.db, params.id, null));
