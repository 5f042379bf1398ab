import { FILE_BODY } from '$lib/server/answer';
import { writing } from '$lib/server/ask';

export const POST = writing('charts.bring-file', { lane: 'bulk', body: FILE_BODY });
