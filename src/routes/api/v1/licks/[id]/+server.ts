import { writing } from '$lib/server/ask';

export const PUT = writing('licks.edit');

export const DELETE = writing('licks.delete');
