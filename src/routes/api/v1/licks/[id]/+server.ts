import { writing } from '$lib/server/web/ask';

export const PUT = writing('licks.edit');

export const DELETE = writing('licks.delete');
