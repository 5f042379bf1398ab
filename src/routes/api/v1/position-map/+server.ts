import { positionMapRequest } from '$lib/api/requests';
import { route } from '$lib/server/answer';
import { answerPositionMap } from '$lib/server/compute/neck';

export const POST = route(positionMapRequest, answerPositionMap);
