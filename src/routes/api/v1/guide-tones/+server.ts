import { guideTonesRequest } from '$lib/api/requests';
import { computing } from '$lib/server/compute/route';

export const POST = computing('guide-tones', guideTonesRequest);
