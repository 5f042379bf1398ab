import { FILE_BODY } from '$lib/server/web/answer';
import { reading, writing } from '$lib/server/web/ask';

export const GET = reading('takes.list');

export const POST = writing('takes.keep', { lane: 'bulk', body: FILE_BODY });
