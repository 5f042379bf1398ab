import { voicingsRequest } from '$lib/api/requests';
import { route } from '$lib/server/answer';
import { answerVoicings } from '$lib/server/compute/neck';

export const POST = route(voicingsRequest, answerVoicings);
