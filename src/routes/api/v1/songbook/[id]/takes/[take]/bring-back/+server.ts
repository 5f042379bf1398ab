import { answer } from '$lib/server/answer';
import { bringBackTake } from '$lib/server/takes/takes';
import type { RequestHandler } from './$types';

export const POST: RequestHandler = ({ params, locals }) =>
  answer(() => bringBackTake(locals.db, params.take));
