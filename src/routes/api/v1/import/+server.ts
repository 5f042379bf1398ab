import { FILE_BODY } from '$lib/server/web/answer';
import { computing } from '$lib/server/web/ask';

export const POST = computing('import', { lane: 'heavy', body: FILE_BODY });
