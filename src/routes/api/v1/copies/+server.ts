import { reading, writing } from '$lib/server/web/ask';

export const GET = reading('copies.list');

export const POST = writing('copies.now', { lane: 'bulk' });
