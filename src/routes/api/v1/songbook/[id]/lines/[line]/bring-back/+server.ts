import { answer } from '$lib/server/answer';
import { bringBackLine } from '$lib/server/lines';
import type { RequestHandler } from './$types';

export const POST: RequestHandler = ({ params, locals }) =>
  answer(() => bringBackLine(locals.db, params.line));
