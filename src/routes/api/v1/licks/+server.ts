import { reading, writing } from '$lib/server/web/ask';

export const GET = reading('licks.list', { lane: 'bulk' });

export const POST = writing('licks.keep');
