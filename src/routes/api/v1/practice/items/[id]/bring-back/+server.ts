import { writing } from '$lib/server/ask';

export const POST = writing('items.bring-back');
