import type { TrainerData } from '$lib/api/practice';
import { ask } from '$lib/server/web/ask';
import { dayHere } from '$lib/server/web/day-here';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = async () => ({
  trainer: await ask<TrainerData>('practice.trainer', { query: { day: dayHere().day } })
});
