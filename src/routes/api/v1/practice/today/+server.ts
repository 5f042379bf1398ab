import { reading } from '$lib/server/ask';

export const GET = reading('practice.today', { lane: 'bulk' });
