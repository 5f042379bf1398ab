import { takeArchive } from '$lib/api/archive';
import { archiveStream, ownFolder, receive, type ArchiveParts } from '$lib/server/files/archive-stream';
import { answer, ask } from '$lib/server/web/ask';
import { parse } from '$lib/server/web/body';
import type { RequestHandler } from './$types';

export const GET: RequestHandler = ({ url }) =>
  answer(async () => {
    const { sounds } = parse(takeArchive, Object.fromEntries(url.searchParams));
    const { folder, remove } = ownFolder();
    try {
      const parts = await ask<ArchiveParts>('archive.copy', { lane: 'bulk', query: { folder, sounds } });
      return new Response(archiveStream(parts, remove), {
        headers: { 'content-type': 'application/zip', 'content-disposition': 'attachment' }
      });
    } catch (thrown) {
      remove();
      throw thrown;
    }
  });

export const POST: RequestHandler = ({ request, url }) =>
  answer(async () => {
    const { folder, remove } = ownFolder();
    try {
      const path = `${folder}/archive.zip`;
      await receive(request.body, path);
      const merge = url.searchParams.get('merge') ?? 'look';
      return Response.json(
        await ask('archive.import', { lane: 'bulk', writes: merge !== 'look', query: { path, merge } })
      );
    } finally {
      remove();
    }
  });
