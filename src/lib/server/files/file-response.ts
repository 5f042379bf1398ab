/** A file, or a part of it, as the answer of a route: sent piece by piece, never held whole. */
import { nth } from '../../core/base/list';
import { createReadStream } from 'node:fs';
import { once } from 'node:events';
import { Readable } from 'node:stream';
import { fail } from '../../api/errors';

/** The bytes that a `Range` asks for, both ends in; null where it asks for none that can be given, undefined where it asks for all. */
export function rangeOf(
  header: string | null,
  bytes: number
): { from: number; to: number } | null | undefined {
  const asked = /^bytes=(\d*)-(\d*)$/.exec(header ?? '');
  // Several parts at once, or another unit: all of it is a right answer.
  if (!asked || (asked[1] === '' && asked[2] === '')) return undefined;
  const [first, last] = [nth(asked, 1), nth(asked, 2)];
  const from = first === '' ? Math.max(0, bytes - Number(last)) : Number(first);
  const to = first === '' || last === '' ? bytes - 1 : Math.min(Number(last), bytes - 1);
  return from > to || from >= bytes ? null : { from, to };
}

export async function fileResponse(
  path: string,
  bytes: number,
  type: string,
  range: string | null
): Promise<Response> {
  const part = rangeOf(range, bytes);
  const headers: Record<string, string> = { 'content-type': type, 'accept-ranges': 'bytes' };
  if (part === null)
    return new Response(null, { status: 416, headers: { ...headers, 'content-range': `bytes */${bytes}` } });
  const { from, to } = part ?? { from: 0, to: bytes - 1 };
  const stream = createReadStream(path, { start: from, end: to });
  try {
    await once(stream, 'open');
  } catch (thrown) {
    if ((thrown as NodeJS.ErrnoException).code !== 'ENOENT') throw thrown;
    return fail(404, { code: 'no-sound', message: 'The sound of this take is not kept; its notes are.' });
  }
  headers['content-length'] = String(to - from + 1);
  if (part) headers['content-range'] = `bytes ${from}-${to}/${bytes}`;
  return new Response(Readable.toWeb(stream) as ReadableStream<Uint8Array>, {
    status: part ? 206 : 200,
    headers
  });
}
