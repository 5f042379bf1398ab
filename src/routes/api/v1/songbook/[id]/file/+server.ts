import { answer } from '$lib/server/answer';
import { chartFileOf } from '$lib/server/chart-file';
import type { RequestHandler } from './$types';

/** `?with=all`: takes and log too. */
export const GET: RequestHandler = ({ params, url, locals }) =>
  answer(() => chartFileOf(locals.db, params.id, url.searchParams.get('with') === 'all'));
