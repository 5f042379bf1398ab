import { writing } from '$lib/server/ask';

export const POST = writing('copies.bring-back', { lane: 'bulk' });
