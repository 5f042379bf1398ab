import { answer } from '$lib/server/answer';
import { takeSounds } from '$lib/server/takes/takes';
import type { RequestHandler } from './$types';

export const GET: RequestHandler = ({ locals }) => answer(() => takeSounds(locals.db));
