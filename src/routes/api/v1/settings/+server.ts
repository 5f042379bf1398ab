import { writing } from '$lib/server/ask';

export const PUT = writing('settings.write');
