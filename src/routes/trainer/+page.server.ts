import { dayHere } from '$lib/server/practice/today';
import { trainerOf } from '$lib/server/practice/trainer';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = async ({ locals }) => ({
  trainer: await trainerOf(locals.db, dayHere().day)
});
