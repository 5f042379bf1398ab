import { writing } from '$lib/server/ask';

export const POST = writing('set-lists.bring-back');
