/** The frame of every route: what a request brings goes to a thread, what comes back is the answer. */
import { isMainThread } from 'node:worker_threads';
import type { RequestEvent } from '@sveltejs/kit';
import { answerToError, readBytes, type BodyBound, CHART_BODY } from './answer';
import { fail } from '../../api/errors';
import type { ComputeName } from '../compute/answers';
import type { KeptName } from '../threads/songbook-jobs';
import { songbookPath } from '../store/database-path';
import { whileThere } from './leaving';
import source from '../threads/work.ts?thread';
import { BOUNDS, Pool, type Done, type LaneName } from '../threads/pool';
import type { SentJob } from '../threads/work';

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
const threads = () => (pool ??= new Pool(source, BOUNDS, { songbook: songbookPath() }));

/** Opens the threads with the server. */
export function openThreads(): void {
  threads().warm('light', 'write');
}

/** Ends the threads with the server, each after it has closed the songbook. */
export async function closeThreads(): Promise<void> {
  await pool?.close();
  pool = undefined;
}

export interface JobFrame {
  /** Where the work is done; `light` unless said. */
  readonly lane?: LaneName;
  readonly body?: BodyBound;
  /** False for work that the client may wish for although it takes no body. */
  readonly needsBody?: boolean;
}

/** Bytes of a request that is light: longer charts are worked on among the heavy. */
const LIGHT_BYTES = 4096;

const NO_BYTES = () => new Uint8Array();

function responseOf({ bytes, type, name }: Done): Response {
  if (name === undefined) return new Response(bytes, { headers: { 'content-type': type } });
  // Names outside ASCII are told twice: plainly, and as they are.
  const plain = name.replaceAll(/[^\w .()-]/g, '_');
  const headers = {
    'content-type': type,
    'content-disposition': `attachment; filename="${plain}"; filename*=UTF-8''${encodeURIComponent(name.toWellFormed())}`
  };
  return new Response(bytes, { headers });
}

/** Runs a route's work; what it throws becomes its answer. */
export async function answer(work: () => Promise<Response>): Promise<Response> {
  try {
    return await work();
  } catch (thrown) {
    return answerToError(thrown);
  }
}

type Route = (event: RequestEvent) => Promise<Response>;
const partsOf = ({ params, url }: RequestEvent) => ({
  params: Object.fromEntries(Object.entries(params).map(([name, value]) => [name, value ?? ''])),
  query: Object.fromEntries(url.searchParams)
});

/** A route that computes: it ends with the client that asked, and within its budget. */
export function computing(name: ComputeName, { lane = 'light', body = CHART_BODY }: JobFrame = {}): Route {
  const tooLong = `This would take longer than ${Math.round(BOUNDS.budget / 1000)} seconds. ${TOO_LONG[name] ?? 'Ask for a shorter chart.'}`;
  return (event) =>
    answer(async () => {
      const bytes = await readBytes(event.request, body);
      if (bytes.length === 0 && name === 'listen')
        fail(400, {
          code: 'no-sound',
          message: 'There is no sound in the request; send a WAV file as its body.'
        });
      const job: SentJob = { name, writes: false, ...partsOf(event) };
      const own = lane === 'light' && bytes.length > LIGHT_BYTES ? 'heavy' : lane;
      const run = (signal: AbortSignal) => threads().run({ lane: own, job, bytes, tooLong, signal });
      return responseOf(await whileThere(event, run));
    });
}

/** A route that reads the songbook. */
export function reading(name: KeptName, { lane = 'light' }: JobFrame = {}): Route {
  return (event) => answer(async () => responseOf(await send(name, lane, false, partsOf(event), NO_BYTES())));
}

/** A route that changes the songbook: it is done to its end, whether the client waits for it or not. */
export function writing(name: KeptName, { lane = 'write', body = CHART_BODY }: JobFrame = {}): Route {
  return (event) =>
    answer(async () =>
      responseOf(await send(name, lane, true, partsOf(event), await readBytes(event.request, body)))
    );
}

/** What a job of the songbook gives, for a page or for more than one step of a route. Rejects with a PlayerError. */
export async function ask<T>(
  name: KeptName,
  {
    lane = 'light',
    writes = false,
    params = {},
    query = {}
  }: {
    readonly lane?: LaneName;
    readonly writes?: boolean;
    readonly params?: Readonly<Record<string, string>>;
    readonly query?: Readonly<Record<string, string>>;
  } = {}
): Promise<T> {
  // A thread that draws pages looks into the songbook by itself.
  if (!isMainThread) return (await import('./ask-here')).askHere<T>(name, { params, query });
  const { bytes } = await send(name, lane, writes, { params, query }, NO_BYTES());
  return JSON.parse(new TextDecoder().decode(bytes)) as T;
}

function send(
  name: KeptName,
  lane: LaneName,
  writes: boolean,
  parts: Pick<SentJob, 'params' | 'query'>,
  bytes: Uint8Array<ArrayBuffer>
): Promise<Done> {
  return threads().run({ lane, job: { name, writes, ...parts } satisfies SentJob, bytes });
}
