import { keepLine } from '$lib/api/line';
import { answer, route } from '$lib/server/answer';
import { keepNewLine, listLines } from '$lib/server/lines';
import type { RequestHandler } from './$types';

export const GET: RequestHandler = ({ params, locals }) =>
  answer(async () => ({ lines: await listLines(locals.db, params.id) }));

export const POST = route(keepLine, (line, { params, locals }) => keepNewLine(locals.db, params.id!, line));
