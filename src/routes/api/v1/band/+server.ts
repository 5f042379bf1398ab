import { bandRequest } from '$lib/api/requests';
import { computingFile } from '$lib/server/compute/route';

export const POST = computingFile('band', bandRequest);
