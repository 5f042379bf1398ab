import { answer, parse } from '$lib/server/answer';
import { todayOf, todayQuery } from '$lib/server/practice/today';
import type { RequestHandler } from './$types';

export const GET: RequestHandler = ({ url, locals }) =>
  answer(() => todayOf(locals.db, parse(todayQuery, Object.fromEntries(url.searchParams))));
