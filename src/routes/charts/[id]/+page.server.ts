import { error } from '@sveltejs/kit';
import { PlayerError } from '$lib/api/errors';
import { openChart } from '$lib/server/songbook';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = async ({ params, locals }) => {
  try {
    return { chart: await openChart(locals.db, params.id) };
  } catch (thrown) {
    if (thrown instanceof PlayerError) error(thrown.status, thrown.error.message);
    throw thrown;
  }
};
