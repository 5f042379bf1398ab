import { answer } from '$lib/server/answer';
import { duplicateChart } from '$lib/server/songbook';
import type { RequestHandler } from './$types';

export const POST: RequestHandler = ({ params, locals }) =>
  answer(() => duplicateChart(locals.db, params.id));
