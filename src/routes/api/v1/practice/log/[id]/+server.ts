import { writing } from '$lib/server/web/ask';

export const PUT = writing('log.correct');

export const DELETE = writing('log.delete');
