import { error } from '@sveltejs/kit';
import { PlayerError } from '$lib/api/errors';
import type { StoredChart } from '$lib/api/songbook';
import { ask } from '$lib/server/web/ask';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = async ({ params }) => {
  try {
    return { chart: await ask<StoredChart>('charts.open', { params }) };
  } catch (thrown) {
    if (thrown instanceof PlayerError) error(thrown.status, thrown.error.message);
    throw thrown;
  }
};
