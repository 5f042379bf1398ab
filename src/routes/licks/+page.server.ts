import type { LickList } from '$lib/api/lick';
import { ask } from '$lib/server/web/ask';
import type { PageServerLoad } from './$types';

/** Licks that come with the page; the rest follows it. */
const FIRST = '60';

export const load: PageServerLoad = async () => ({
  licks: await ask<LickList>('licks.list', { lane: 'bulk', query: { limit: FIRST } })
});
