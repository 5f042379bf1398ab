import { writing } from '$lib/server/web/ask';

export const PUT = writing('settings.write');
