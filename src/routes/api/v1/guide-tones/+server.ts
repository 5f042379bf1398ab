import { guideTonesRequest } from '$lib/api/requests';
import { route } from '$lib/server/answer';
import { answerGuideTones } from '$lib/server/compute/harmony';

export const POST = route(guideTonesRequest, answerGuideTones);
