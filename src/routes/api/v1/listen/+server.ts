import { SOUND_BODY } from '$lib/server/web/answer';
import { computing } from '$lib/server/web/ask';

export const POST = computing('listen', { lane: 'heavy', body: SOUND_BODY });
