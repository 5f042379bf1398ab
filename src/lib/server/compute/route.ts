/** The frame of a computing route: its body is parsed here, its work done in a thread. */
import type { RequestEvent } from '@sveltejs/kit';
import type { z } from 'zod';
import { answer, CHART_BODY, parse, readBody, type BodyBound } from '../answer';
import { BOUNDS, Pool } from '../threads/pool';
import source from '../threads/compute.ts?thread';
import type { answers, ComputeName } from './answers';

/** What to make smaller where an answer would take too long. */
const TOO_LONG: Partial<Record<ComputeName, string>> = {
  targets: 'Ask for fewer alternatives, fewer targets, a smaller part of the neck, or a shorter chart.',
  'scale-choices': 'Name the approaches or the change that you want, or ask for a shorter chart.',
  lines: 'Ask for fewer alternatives, for a part of the chart with from and to, or for a position.',
  band: 'Ask for fewer rounds, or for a shorter chart.',
  'position-map': 'Ask for fewer changes with from and to, or for a shorter chart.'
};

let pool: Pool | undefined;

/** Opens the threads with the server. */
export function openThreads(): void {
  pool ??= new Pool(source);
  pool.warm();
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

/** A route that answers with what the computation of that name gives for its input. */
export function computing<Name extends ComputeName>(
  name: Name,
  schema: z.ZodType<Parameters<(typeof answers)[Name]>[0]>,
  body: BodyBound = CHART_BODY
): (event: RequestEvent) => Promise<Response> {
  return ({ request }) =>
    answer(async () => {
      const input = parse(schema, await readBody(request, body));
      pool ??= new Pool(source);
      const seconds = Math.round(BOUNDS.budget / 1000);
      const tooLong = `This would take longer than ${seconds} seconds. ${TOO_LONG[name] ?? 'Ask for a shorter chart.'}`;
      const text = await pool.run({ name, input }, tooLong, request.signal);
      return new Response(text, { headers: { 'content-type': 'application/json' } });
    });
}
