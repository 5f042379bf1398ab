import { shapeRequest } from '$lib/api/requests';
import { route } from '$lib/server/answer';
import { answerShape } from '$lib/server/compute/neck';

export const POST = route(shapeRequest, answerShape);
