import { computing } from '$lib/server/web/ask';

export const POST = computing('export');
