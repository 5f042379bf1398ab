import { keepSetList } from '$lib/api/practice';
import { answer, route } from '$lib/server/answer';
import { keepNewSetList, listSetLists } from '$lib/server/practice/set-lists';
import type { RequestHandler } from './$types';

export const GET: RequestHandler = ({ locals }) =>
  answer(async () => ({ setLists: await listSetLists(locals.db) }));

export const POST = route(keepSetList, (list, { locals }) => keepNewSetList(locals.db, list));
