import { writing } from '$lib/server/web/ask';

export const PUT = writing('set-lists.edit');

export const DELETE = writing('set-lists.delete');
