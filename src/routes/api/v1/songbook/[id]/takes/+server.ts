import { FILE_BODY } from '$lib/server/answer';
import { reading, writing } from '$lib/server/ask';

export const GET = reading('takes.list');

export const POST = writing('takes.keep', { lane: 'bulk', body: FILE_BODY });
