/** The frame of a computing route: its body is parsed here, its work done in a thread. */
import type { RequestEvent } from '@sveltejs/kit';
import type { z } from 'zod';
import { answer, parse, readBody } from '../answer';
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

/** A route that answers with a file: the computation gives `{base64}`. */
export function computingFile<Name extends ComputeName>(
  name: Name,
  schema: z.ZodType<Parameters<(typeof answers)[Name]>[0]>,
  file: { readonly type: string; readonly name: string }
): (event: RequestEvent) => Promise<Response> {
  const compute = computing(name, schema);
  return async (event) => {
    const response = await compute(event);
    if (!response.ok) return response;
    const { base64 } = (await response.json()) as { base64: string };
    const headers = {
      'content-type': file.type,
      'content-disposition': `attachment; filename="${file.name}"`
    };
    return new Response(Buffer.from(base64, 'base64'), { headers });
  };
}

/** A route that answers with what the computation of that name gives for its input. */
export function computing<Name extends ComputeName>(
  name: Name,
  schema: z.ZodType<Parameters<(typeof answers)[Name]>[0]>
): (event: RequestEvent) => Promise<Response> {
  return ({ request }) =>
    answer(async () => {
      const input = parse(schema, await readBody(request));
      pool ??= new Pool(source);
      const seconds = Math.round(BOUNDS.budget / 1000);
      const tooLong = `This would take longer than ${seconds} seconds. ${TOO_LONG[name] ?? 'Ask for a shorter chart.'}`;
      const text = await pool.run({ name, input }, tooLong, request.signal);
      return new Response(text, { headers: { 'content-type': 'application/json' } });
    });
}
