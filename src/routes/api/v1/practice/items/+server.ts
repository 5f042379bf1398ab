import { keepItems, orderItems } from '$lib/api/practice';
import { answer, route } from '$lib/server/answer';
import { keepNewItems, listItems, reorderItems } from '$lib/server/practice/items';
import type { RequestHandler } from './$types';

export const GET: RequestHandler = ({ locals }) =>
  answer(async () => ({ items: await listItems(locals.db) }));

export const POST = route(keepItems, (items, { locals }) => keepNewItems(locals.db, items));

export const PUT = route(orderItems, (order, { locals }) => reorderItems(locals.db, order));
