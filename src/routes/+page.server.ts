import { listCharts, type ChartList } from '$lib/api/songbook';
import { ask } from '$lib/server/web/ask';
import type { PageServerLoad } from './$types';

/** What the address searches for; an address that asks for what there is not asks for nothing. */
export const load: PageServerLoad = async ({ url }) => {
  const asked = Object.fromEntries(url.searchParams);
  const said = listCharts.omit({ offset: true, limit: true }).safeParse(asked);
  const query = listCharts.parse(said.success ? said.data : {});
  const told = said.success ? Object.entries(said.data) : [];
  const words = told.flatMap(([name, value]) => (value === undefined ? [] : [[name, String(value)]]));
  return { query, list: await ask<ChartList>('charts.list', { query: Object.fromEntries(words) }) };
};
