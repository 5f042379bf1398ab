import { computingSound } from '$lib/server/compute/route';

export const POST = computingSound('listen');
