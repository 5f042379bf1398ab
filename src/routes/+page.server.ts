import { listCharts } from '$lib/api/songbook';
import { listSongbook } from '$lib/server/songbook';
import type { PageServerLoad } from './$types';

/** What the address searches for; an address that asks for what there is not asks for nothing. */
export const load: PageServerLoad = async ({ locals, url }) => {
  const said = listCharts.omit({ offset: true, limit: true }).safeParse(Object.fromEntries(url.searchParams));
  const query = listCharts.parse(said.success ? said.data : {});
  return { query, list: await listSongbook(locals.db, query) };
};
