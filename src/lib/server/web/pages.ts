/**
 * Pages drawn in threads: a long chart takes a tenth of a second to draw, in which nobody else shall wait. A thread has the whole server of
 * its own, which asks the songbook by itself.
 */
import { isMainThread } from 'node:worker_threads';
import type { RequestEvent } from '@sveltejs/kit';
import { whileThere } from './leaving';
import { BOUNDS, Pool } from '../threads/pool';

/** What a page is asked with. */
interface Asked {
  readonly url: string;
  readonly headers: readonly (readonly [string, string])[];
}

/** The code of a thread. */
const SOURCE = `
const { parentPort } = require('node:worker_threads');
const { readlinkSync } = require('node:fs');
const opening = (async () => {
  const { Server, manifest } = require(process.env.CORVEL_PROGRAMS).run('server');
  const server = new Server(manifest);
  await server.init({ env: process.env });
  return server;
})();
opening.catch(() => {});
let thread;
try {
  thread = Number(readlinkSync('/proc/thread-self').split('/').at(-1));
} catch {}
parentPort.postMessage({ kind: 'hello', thread });
async function draw({ url, headers }) {
  const server = await opening;
  const response = await server.respond(new Request(url, { headers }), { getClientAddress: () => '127.0.0.1' });
  const bytes = new Uint8Array(await response.arrayBuffer());
  const head = { status: response.status, headers: [...response.headers] };
  return { kind: 'done', bytes, type: '', head };
}
parentPort.on('message', (message) => {
  if (message === 'close') {
    process.emit('corvel:close', []);
    process.exit(0);
  }
  draw(JSON.parse(message.text)).then(
    (answer) => parentPort.postMessage(answer, [answer.bytes.buffer]),
    (error) => parentPort.postMessage({ kind: 'failed', message: String(error?.stack ?? error) })
  );
});
`;

/** Threads that draw. */
const MOST = 2;
let pool: Pool | undefined;

/** Whether this program draws its pages in threads: not where it is developed, and not inside such a thread. */
export const drawsInThreads = (): boolean => isMainThread && process.env.CORVEL_PROGRAMS !== undefined;

function threads(): Pool {
  const most = { ...BOUNDS.most, light: MOST };
  // A page that takes long does not make room for another: it is drawn, and then the next one is.
  return (pool ??= new Pool(SOURCE, { ...BOUNDS, most, long: Infinity }));
}

/** Opens the threads, so that the first page does not wait for them. */
export function openPages(): void {
  if (drawsInThreads()) threads().warm('light');
}

export async function closePages(): Promise<void> {
  await pool?.close();
  pool = undefined;
}

/** The page that a request asks for. */
export async function drawn(event: RequestEvent): Promise<Response> {
  const { request } = event;
  const job: Asked = { url: request.url, headers: [...request.headers] };
  const tooLong = 'This page takes too long to draw.';
  const { bytes, head } = await whileThere(event, (signal) =>
    threads().run({ lane: 'light', job, tooLong, signal })
  );
  const { status, headers } = head!;
  // Answers of these kinds have no body.
  const body = [204, 304].includes(status) || request.method === 'HEAD' ? null : bytes;
  return new Response(body, { status, headers: headers as [string, string][] });
}
