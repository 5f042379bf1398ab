import { answer } from '$lib/server/answer';
import { bringBackCopy } from '$lib/server/copies';
import type { RequestHandler } from './$types';

export const POST: RequestHandler = ({ params, locals }) =>
  answer(() => bringBackCopy(locals.db, params.name, new Date()));
