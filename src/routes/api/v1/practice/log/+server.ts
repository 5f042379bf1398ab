import { listLog, recordRows } from '$lib/api/practice';
import { answer, parse, route } from '$lib/server/answer';
import { listRows, record } from '$lib/server/practice/log';
import type { RequestHandler } from './$types';

export const GET: RequestHandler = ({ url, locals }) =>
  answer(() => listRows(locals.db, parse(listLog, Object.fromEntries(url.searchParams))));

export const POST = route(recordRows, (rows, { locals }) => record(locals.db, rows));
