import { FILE_BODY } from '$lib/server/web/answer';
import { reading, writing } from '$lib/server/web/ask';

export const GET = reading('takes.open');

export const PUT = writing('takes.edit', { lane: 'bulk', body: FILE_BODY });

export const DELETE = writing('takes.delete');
