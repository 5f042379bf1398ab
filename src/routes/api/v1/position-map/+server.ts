import { positionMapRequest } from '$lib/api/requests';
import { computing } from '$lib/server/compute/route';

export const POST = computing('position-map', positionMapRequest);
