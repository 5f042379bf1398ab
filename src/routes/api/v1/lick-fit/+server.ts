import { lickFitRequest } from '$lib/api/requests';
import { computing } from '$lib/server/compute/route';

export const POST = computing('lick-fit', lickFitRequest);
