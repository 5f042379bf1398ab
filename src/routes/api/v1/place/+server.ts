import { computing } from '$lib/server/ask';

export const POST = computing('place');
