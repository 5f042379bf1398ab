import { reading } from '$lib/server/ask';

export const GET = reading('find', { lane: 'bulk' });
