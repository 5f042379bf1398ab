import { writing } from '$lib/server/web/ask';

export const POST = writing('licks.restore');
