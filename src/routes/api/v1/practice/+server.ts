import { FILE_BODY } from '$lib/server/answer';
import { computing } from '$lib/server/ask';

export const POST = computing('practice', { lane: 'heavy', body: FILE_BODY });
