import { listLicks } from '$lib/server/licks';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = async ({ locals }) => ({ licks: await listLicks(locals.db) });
