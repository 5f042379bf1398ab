import { createChart as request, listCharts } from '$lib/api/songbook';
import { answer, parse, route } from '$lib/server/answer';
import { createChart, listSongbook } from '$lib/server/songbook';
import type { RequestHandler } from './$types';

export const GET: RequestHandler = ({ url, locals }) =>
  answer(() => listSongbook(locals.db, parse(listCharts, Object.fromEntries(url.searchParams))));

export const POST = route(request, (chart, { locals }) => createChart(locals.db, chart));
