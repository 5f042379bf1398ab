import { practiceRequest } from '$lib/api/requests';
import { FILE_BODY } from '$lib/server/answer';
import { computing } from '$lib/server/compute/route';

export const POST = computing('practice', practiceRequest, FILE_BODY);
