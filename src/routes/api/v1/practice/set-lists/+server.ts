import { reading, writing } from '$lib/server/web/ask';

export const GET = reading('set-lists.list');

export const POST = writing('set-lists.keep');
