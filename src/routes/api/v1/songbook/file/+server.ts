import { FILE_BODY } from '$lib/server/web/answer';
import { writing } from '$lib/server/web/ask';

export const POST = writing('charts.import-file', { lane: 'bulk', body: FILE_BODY });
