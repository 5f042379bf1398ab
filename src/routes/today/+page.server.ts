import { dayHere, todayOf } from '$lib/server/practice/today';
import type { PageServerLoad } from './$types';

/** Minutes that are planned before the player says how many there are. */
const USUAL = 25;

export const load: PageServerLoad = async ({ locals }) => ({
  today: await todayOf(locals.db, { ...dayHere(), minutes: USUAL })
});
