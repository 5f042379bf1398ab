import { bringArchive, takeArchive } from '$lib/api/archive';
import { answer, parse } from '$lib/server/answer';
import { archiveOf, bringArchiveIn } from '$lib/server/archive';
import type { RequestHandler } from './$types';

const wishOf = (url: URL) => Object.fromEntries(url.searchParams);

export const GET: RequestHandler = async ({ url, locals }) => {
  const { sounds } = parse(takeArchive, wishOf(url));
  return new Response(await archiveOf(locals.db, sounds === 'yes'), {
    headers: { 'content-type': 'application/zip', 'content-disposition': 'attachment' }
  });
};

export const POST: RequestHandler = ({ request, url, locals }) =>
  answer(() => bringArchiveIn(locals.db, request.body, parse(bringArchive, wishOf(url)).merge, new Date()));
