/** The frame of every JSON route: bounded body, Zod at the door, errors as sentences. */
import { json, type RequestEvent } from '@sveltejs/kit';
import type { z } from 'zod';
import { PlayerError, type ApiError } from '../api/errors';
import { MAX_BODY_BYTES } from '../api/limits';

export function fail(status: PlayerError['status'], error: ApiError, extra?: Record<string, unknown>): never {
  throw new PlayerError(status, error, extra);
}

/** Reads a body of bounded size as JSON. */
async function readBody(request: Request): Promise<unknown> {
  const tooLarge = () =>
    fail(413, {
      code: 'too-large',
      message: `The request is larger than ${MAX_BODY_BYTES / 1024} KiB; charts may be up to 64 KiB.`
    });
  if (Number(request.headers.get('content-length') ?? 0) > MAX_BODY_BYTES) tooLarge();
  const chunks: Uint8Array[] = [];
  let size = 0;
  // Node's body streams are async iterable, which the types of the web's streams do not say.
  const body = (request.body ?? []) as unknown as AsyncIterable<Uint8Array>;
  for await (const chunk of body) {
    size += chunk.length;
    if (size > MAX_BODY_BYTES) tooLarge();
    chunks.push(chunk);
  }
  try {
    return JSON.parse(Buffer.concat(chunks).toString('utf8'));
  } catch {
    return fail(400, { code: 'not-json', message: 'The request is not JSON that Corvel can read.' });
  }
}

/** Parses a value, or answers with the first thing that is wrong with it. */
export function parse<T extends z.ZodType>(schema: T, value: unknown): z.infer<T> {
  const result = schema.safeParse(value);
  if (result.success) return result.data;
  const issue = result.error.issues[0]!;
  const path = issue.path.join('.');
  return fail(400, {
    code: 'bad-request',
    message: issue.message.startsWith('“') ? issue.message : `${path || 'The request'}: ${issue.message}.`,
    ...(path ? { path } : {})
  });
}

/** Runs a route's work and turns a PlayerError into its answer. */
export async function answer(work: () => unknown): Promise<Response> {
  try {
    return json((await work()) ?? {});
  } catch (thrown) {
    if (thrown instanceof PlayerError) {
      return json({ error: thrown.error, ...thrown.extra }, { status: thrown.status });
    }
    throw thrown;
  }
}

/** A JSON route: body in, parsed by a schema, answer out. */
export function route<T extends z.ZodType>(
  schema: T,
  work: (input: z.infer<T>, event: RequestEvent) => unknown
): (event: RequestEvent) => Promise<Response> {
  return (event) => answer(async () => work(parse(schema, await readBody(event.request)), event));
}
