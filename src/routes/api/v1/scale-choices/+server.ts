import { scaleChoicesRequest } from '$lib/api/requests';
import { route } from '$lib/server/answer';
import { answerScaleChoices } from '$lib/server/compute/harmony';

export const POST = route(scaleChoicesRequest, answerScaleChoices);
