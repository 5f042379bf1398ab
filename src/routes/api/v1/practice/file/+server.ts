import { FILE_BODY } from '$lib/server/web/answer';
import { reading, writing } from '$lib/server/web/ask';

/** The log as a table, or all of practice as it is kept. */
export const GET = reading('practice.file', { lane: 'bulk' });

/** Takes a table into the log. */
export const POST = writing('practice.import-table', { lane: 'bulk', body: FILE_BODY });
