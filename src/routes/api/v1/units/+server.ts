import { unitsRequest } from '$lib/api/requests';
import { route } from '$lib/server/answer';
import { answerUnits } from '$lib/server/compute/neck';

export const POST = route(unitsRequest, answerUnits);
