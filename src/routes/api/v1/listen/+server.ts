import { SOUND_BODY } from '$lib/server/answer';
import { computing } from '$lib/server/ask';

export const POST = computing('listen', { lane: 'heavy', body: SOUND_BODY });
