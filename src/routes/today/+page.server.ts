import type { Today } from '$lib/api/practice';
import { ask } from '$lib/server/web/ask';
import { dayHere } from '$lib/server/web/day-here';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = async () => {
  const { day, offset } = dayHere();
  return {
    today: await ask<Today>('practice.today', { lane: 'bulk', query: { day, offset: String(offset) } })
  };
};
