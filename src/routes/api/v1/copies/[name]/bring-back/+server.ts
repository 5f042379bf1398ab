import { writing } from '$lib/server/web/ask';

export const POST = writing('copies.restore', { lane: 'bulk' });
