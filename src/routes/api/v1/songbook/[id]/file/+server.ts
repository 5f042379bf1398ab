import { reading } from '$lib/server/web/ask';

/** `?with=all`: takes and log too. */
export const GET = reading('charts.file', { lane: 'bulk' });
