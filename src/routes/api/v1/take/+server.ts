import { takeRequest } from '$lib/api/requests';
import { FILE_BODY } from '$lib/server/answer';
import { computing } from '$lib/server/compute/route';

export const POST = computing('take', takeRequest, FILE_BODY);
