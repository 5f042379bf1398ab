import { listCharts } from '$lib/api/songbook';
import { listSongbook } from '$lib/server/songbook';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = async ({ locals }) => ({
  list: await listSongbook(locals.db, listCharts.parse({}))
});
