import { reading } from '$lib/server/web/ask';

export const GET = reading('charts.revision');
