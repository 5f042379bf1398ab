import { answer } from '$lib/server/answer';
import { bringBackChart } from '$lib/server/songbook';
import type { RequestHandler } from './$types';

export const POST: RequestHandler = ({ params, locals }) =>
  answer(() => bringBackChart(locals.db, params.id));
