import { manyCharts } from '$lib/api/songbook';
import { route } from '$lib/server/answer';
import { changeMany } from '$lib/server/songbook';

export const POST = route(manyCharts, (input, { locals }) => changeMany(locals.db, input));
