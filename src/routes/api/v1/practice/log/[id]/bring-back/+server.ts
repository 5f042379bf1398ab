import { writing } from '$lib/server/ask';

export const POST = writing('log.bring-back');
