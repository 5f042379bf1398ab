import { z } from 'zod';
import { dayField } from '$lib/api/practice';
import { answer, parse } from '$lib/server/answer';
import { picturesOf } from '$lib/server/practice/pictures';
import type { RequestHandler } from './$types';

const query = z.object({ day: dayField });

export const GET: RequestHandler = ({ url, locals }) =>
  answer(() => picturesOf(locals.db, parse(query, Object.fromEntries(url.searchParams)).day));
