import { writing } from '$lib/server/web/ask';

export const PUT = writing('items.edit');

export const DELETE = writing('items.delete');
