import { computing } from '$lib/server/web/ask';

export const POST = computing('lines', { lane: 'heavy' });
