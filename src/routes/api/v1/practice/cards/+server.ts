import { reading } from '$lib/server/ask';

export const GET = reading('cards.list');
