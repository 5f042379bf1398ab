import type { Handle, HandleServerError, ServerInit } from '@sveltejs/kit';
import { building } from '$app/environment';
import { answerToError, errorResponse } from '$lib/server/answer';
import { closeThreads, openThreads } from '$lib/server/compute/route';
import { copyOfDay } from '$lib/server/copies';
import { closeDatabase, database } from '$lib/server/database';
import { seedDemo } from '$lib/server/demo';
import { readSettings } from '$lib/server/settings';
import { refreshSummaries } from '$lib/server/songbook';
import { sweepTakes } from '$lib/server/takes/takes';
import { fileTrouble } from '$lib/server/trouble';

export const init: ServerInit = async () => {
  if (building) return;
  const db = await database();
  if (process.env.CORVEL_DEMO === '1') await seedDemo(db);
  await sweepTakes(db, Date.now());
  // What lists tell can wait; it is complete after the first moments.
  void refreshSummaries(db).catch(console.error);
  openThreads();
  // The last word of the program that serves Corvel, once no request is under way.
  process.on('corvel:close', () => {
    closeThreads();
    closeDatabase();
  });
};

const LOOPBACK = /^(localhost|127(?:\.\d+){3}|\[::1\])(:\d+)?$/;
const READING = new Set(['GET', 'HEAD', 'OPTIONS']);

/** Writes come from Corvel's own pages only, and a server on loopback answers to loopback names only. */
function refusal(request: Request): string | null {
  const host = request.headers.get('host') ?? '';
  const listensOnLoopback = !process.env.HOST || LOOPBACK.test(process.env.HOST);
  if (listensOnLoopback && !LOOPBACK.test(host)) return 'This server answers on its own machine only.';
  if (READING.has(request.method)) return null;
  const origin = request.headers.get('origin');
  const foreign = origin !== null && (!URL.canParse(origin) || new URL(origin).host !== host);
  const crossSite = request.headers.get('sec-fetch-site') === 'cross-site';
  return foreign || crossSite ? 'Changes are taken from Corvel’s own pages only.' : null;
}

const FIRST_FONTS = /(?:atkinson-hyperlegible-latin-400|source-serif-4-latin-wght)-normal\.[^/]*\.woff2$/;
/** Routes that only compute write nothing: what is kept lies under these. */
const KEEPING = /^\/api\/v1\/(?:songbook|licks|practice\/|settings|takes)/;
const isKeeping = ({ method }: Request, { pathname }: URL) => !READING.has(method) && KEEPING.test(pathname);
const isJson = (response: Response) => response.headers.get('content-type')?.includes('json');

/** The routes' errors have one form, also those that the framework finds: no such method, a fault on the way. */
async function answerApi(work: () => Promise<Response>, method: string): Promise<Response> {
  try {
    const response = await work();
    if (response.status < 400 || isJson(response)) return response;
    return errorResponse(
      response.status,
      response.status === 405
        ? { code: 'no-such-method', message: `This route does not take ${method}; see docs/api.md.` }
        : { code: 'refused', message: 'Corvel could not take this request.' }
    );
  } catch (thrown) {
    return answerToError(thrown);
  }
}

export const handle: Handle = async ({ event, resolve }) => {
  const refused = building ? null : refusal(event.request);
  if (refused) return errorResponse(403, { code: 'forbidden', message: refused });
  const work = async () => {
    event.locals.db = await database();
    event.locals.settings = await readSettings(event.locals.db);
    // What was there before a day's first change is copied once; a disk that is full is told at the change itself.
    if (isKeeping(event.request, event.url))
      await copyOfDay(event.locals.db, new Date()).catch(console.error);
    return resolve(event, {
      transformPageChunk: ({ html }) => html.replace('%corvel.theme%', event.locals.settings.theme),
      // Fonts come when their letters are used; those of every page come at once.
      preload: ({ type, path }) =>
        type === 'js' || type === 'css' || (type === 'font' && FIRST_FONTS.test(path))
    });
  };
  const isApi = event.url.pathname.startsWith('/api/');
  const response = isApi ? await answerApi(work, event.request.method) : await work();
  response.headers.set('X-Content-Type-Options', 'nosniff');
  response.headers.set('Referrer-Policy', 'no-referrer');
  return response;
};

/** What a page says of an error that nobody foresaw. */
export const handleError: HandleServerError = ({ error, status, message }) => {
  if (status === 404) return { message };
  console.error(error);
  return {
    message: fileTrouble(error)?.error.message ?? 'Corvel could not show this; the fault is its own.'
  };
};
