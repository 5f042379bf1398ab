import { z } from 'zod';
import { answer, FILE_BODY, parse, readBody } from '$lib/server/answer';
import { logCsv, practiceJson, takeLog } from '$lib/server/practice/files';
import type { RequestHandler } from './$types';

const query = z.object({ format: z.enum(['csv', 'json']).default('csv') });
const file = z.object({ text: z.string() });

/** The log as a table, or all of practice as it is kept. */
export const GET: RequestHandler = ({ url, locals }) =>
  answer(async () => {
    const { format } = parse(query, Object.fromEntries(url.searchParams));
    const body = format === 'csv' ? await logCsv(locals.db) : JSON.stringify(await practiceJson(locals.db));
    const type = format === 'csv' ? 'text/csv; charset=utf-8' : 'application/json';
    return new Response(body, {
      headers: {
        'content-type': type,
        'content-disposition': `attachment; filename="practice.${format}"`
      }
    });
  });

/** Takes a table into the log. */
export const POST: RequestHandler = ({ request, locals }) =>
  answer(async () => takeLog(locals.db, parse(file, await readBody(request, FILE_BODY)).text));
