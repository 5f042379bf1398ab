import { keepLick } from '$lib/api/lick';
import { answer, route } from '$lib/server/answer';
import { keepNewLick, listLicks } from '$lib/server/licks';
import type { RequestHandler } from './$types';

export const GET: RequestHandler = ({ locals }) =>
  answer(async () => ({ licks: await listLicks(locals.db) }));

export const POST = route(keepLick, (lick, { locals }) => keepNewLick(locals.db, lick));
