import { saveChart as request } from '$lib/api/songbook';
import { answer, route } from '$lib/server/answer';
import { deleteChart, openChart, saveChart } from '$lib/server/songbook';
import type { RequestHandler } from './$types';

export const GET: RequestHandler = ({ params, locals }) => answer(() => openChart(locals.db, params.id));

export const PUT = route(request, (edit, { params, locals }) => saveChart(locals.db, params.id!, edit));

export const DELETE: RequestHandler = ({ params, locals }) => answer(() => deleteChart(locals.db, params.id));
