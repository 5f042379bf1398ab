import { reading, writing } from '$lib/server/web/ask';

export const GET = reading('items.list');

export const POST = writing('items.keep');

export const PUT = writing('items.order');
