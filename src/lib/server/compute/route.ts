/** The frame of a computing route: its body is parsed here, its work done in a thread. */
import type { RequestEvent } from '@sveltejs/kit';
import type { z } from 'zod';
import { fail } from '../../api/errors';
import { answer, CHART_BODY, parse, readBody, readBytes, SOUND_BODY, type BodyBound } from '../answer';
import { BOUNDS, Pool } from '../threads/pool';
import source from '../threads/compute.ts?thread';
import type { answers, ComputeName } from './answers';

/** What to make smaller where an answer would take too long. */
const TOO_LONG: Partial<Record<ComputeName, string>> = {
  targets: 'Ask for fewer alternatives, fewer targets, a smaller part of the neck, or a shorter chart.',
  'scale-choices': 'Name the approaches or the change that you want, or ask for a shorter chart.',
  lines: 'Ask for fewer alternatives, for a part of the chart with from and to, or for a position.',
  band: 'Ask for fewer rounds, or for a shorter chart.',
  listen: 'Send a shorter sound.',
  take: 'Send fewer notes, or a shorter chart.',
  'position-map': 'Ask for fewer changes with from and to, or for a shorter chart.'
};

let pool: Pool | undefined;

/** Opens the threads with the server. */
export function openThreads(): void {
  threads().warm();
}

/** Ends the threads with the server. */
export function closeThreads(): void {
  pool?.close();
  pool = undefined;
}

/** A file as a computation gives it: its bytes, media type and name. */
export interface AnsweredFile {
  readonly base64: string;
  readonly type: string;
  readonly name: string;
}

/** The names of computations that give a file. */
type FileName = {
  [Name in ComputeName]: ReturnType<(typeof answers)[Name]> extends AnsweredFile ? Name : never;
}[ComputeName];

/** A route that answers with a file. */
export function computingFile<Name extends FileName>(
  name: Name,
  schema: z.ZodType<Parameters<(typeof answers)[Name]>[0]>
): (event: RequestEvent) => Promise<Response> {
  const compute = computing(name, schema);
  return async (event) => {
    const response = await compute(event);
    if (!response.ok) return response;
    const file = (await response.json()) as AnsweredFile;
    // Names outside ASCII are told twice: plainly, and as they are.
    const plain = file.name.replaceAll(/[^\w .()-]/g, '_');
    const headers = {
      'content-type': file.type,
      'content-disposition': `attachment; filename="${plain}"; filename*=UTF-8''${encodeURIComponent(file.name)}`
    };
    return new Response(Buffer.from(file.base64, 'base64'), { headers });
  };
}

/** A route that answers with what the computation of that name makes of a sound, which is the body as it comes. */
export function computingSound(name: 'listen'): (event: RequestEvent) => Promise<Response> {
  return ({ request }) =>
    answer(async () => {
      const body = await readBytes(request, SOUND_BODY);
      if (body.length === 0)
        fail(400, {
          code: 'no-sound',
          message: 'There is no sound in the request; send a WAV file as its body.'
        });
      const bytes = new Uint8Array(body);
      const text = await threads().run({ name }, tooLong(name), request.signal, bytes);
      return new Response(text, { headers: { 'content-type': 'application/json' } });
    });
}

const threads = () => (pool ??= new Pool(source));
const tooLong = (name: ComputeName) =>
  `This would take longer than ${Math.round(BOUNDS.budget / 1000)} seconds. ${TOO_LONG[name] ?? 'Ask for a shorter chart.'}`;

/** A route that answers with what the computation of that name gives for its input. */
export function computing<Name extends ComputeName>(
  name: Name,
  schema: z.ZodType<Parameters<(typeof answers)[Name]>[0]>,
  body: BodyBound = CHART_BODY
): (event: RequestEvent) => Promise<Response> {
  return ({ request }) =>
    answer(async () => {
      const input = parse(schema, await readBody(request, body));
      const text = await threads().run({ name, input }, tooLong(name), request.signal);
      return new Response(text, { headers: { 'content-type': 'application/json' } });
    });
}
