import { targetsRequest } from '$lib/api/requests';
import { route } from '$lib/server/answer';
import { answerTargets } from '$lib/server/compute/targets';

export const POST = route(targetsRequest, answerTargets);
