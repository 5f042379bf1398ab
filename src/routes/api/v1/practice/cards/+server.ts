import { answer } from '$lib/server/answer';
import { listCards } from '$lib/server/practice/cards';
import type { RequestHandler } from './$types';

export const GET: RequestHandler = ({ locals }) =>
  answer(async () => ({ cards: await listCards(locals.db) }));
