import { writing } from '$lib/server/ask';

export const POST = writing('licks.bring-back');
