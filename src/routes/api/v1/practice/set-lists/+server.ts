import { reading, writing } from '$lib/server/ask';

export const GET = reading('set-lists.list');

export const POST = writing('set-lists.keep');
