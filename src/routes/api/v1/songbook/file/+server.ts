import { bringChartFile } from '$lib/api/chart-file';
import { answer, FILE_BODY, parse, readBody } from '$lib/server/answer';
import { bringChart } from '$lib/server/chart-file';
import type { RequestHandler } from './$types';

export const POST: RequestHandler = ({ request, locals }) =>
  answer(async () => bringChart(locals.db, parse(bringChartFile, await readBody(request, FILE_BODY))));
