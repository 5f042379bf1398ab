import { reading } from '$lib/server/ask';

export const GET = reading('practice.ahead', { lane: 'bulk' });
