import { writing } from '$lib/server/web/ask';

export const PUT = writing('lines.edit');

export const DELETE = writing('lines.delete');
