import { reading } from '$lib/server/web/ask';

export const GET = reading('find', { lane: 'bulk' });
