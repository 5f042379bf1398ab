import { renameChart as request } from '$lib/api/songbook';
import { route } from '$lib/server/answer';
import { renameChart } from '$lib/server/songbook';

export const POST = route(request, ({ title }, { params, locals }) =>
  renameChart(locals.db, params.id!, title)
);
