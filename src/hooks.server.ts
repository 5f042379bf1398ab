import type { Handle, HandleServerError, ServerInit } from '@sveltejs/kit';
import { isMainThread } from 'node:worker_threads';
import { building, version } from '$app/environment';
import type { Settings } from '$lib/api/settings';
import { answerToError, errorResponse } from '$lib/server/web/answer';
import { ask, closeThreads, openThreads } from '$lib/server/web/ask';
import { closePages, drawn, drawsInThreads, openPages } from '$lib/server/web/pages';
import { refusal } from '$lib/server/web/refusal';
import { fileProblem } from '$lib/server/web/failure';

export const init: ServerInit = async () => {
  if (building || !isMainThread) return;
  // A file that is refused ends the start with its reason.
  const { isBehind } = await ask<{ isBehind: boolean }>('start', { lane: 'write' }).catch(
    async (thrown: unknown) => {
      await closeThreads();
      throw thrown;
    }
  );
  openThreads();
  // After the first moments, unless a page is asked for before: whoever asks routes alone does not wait for them.
  const later = setTimeout(openPages, PAGES_AFTER).unref();
  // What lists tell can wait; it is complete after the first moments.
  if (isBehind) void ask('summaries', { lane: 'bulk' }).catch(console.error);
  // The last word of the program that serves Corvel, once no request is under way: it waits for what is pushed here.
  process.on('corvel:close', (waitFor: Promise<unknown>[]) => {
    clearTimeout(later);
    waitFor.push(closeThreads(), closePages());
  });
};

/** Milliseconds after the start in which the threads that draw pages are opened. */
const PAGES_AFTER = 2000;

const READING = new Set(['GET', 'HEAD']);
const FIRST_FONTS = /(?:atkinson-hyperlegible-latin-400|source-serif-4-latin-wght)-normal\.[^/]*\.woff2$/;
const isJson = (response: Response) => response.headers.get('content-type')?.includes('json');

/** The routes' errors have one form, also those that the framework finds: no such method, a fault on the way. */
async function answerApi(work: () => Promise<Response>, method: string): Promise<Response> {
  try {
    const response = await work();
    if (response.status < 400 || isJson(response)) return response;
    // A part of a file that is not there is told by its headers.
    if (response.status === 416) return response;
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
  const isApi = event.url.pathname.startsWith('/api/');
  const refused = building ? null : refusal(event.request, isApi);
  if (refused) return errorResponse(refused.status, refused.error);
  if (!isApi && READING.has(event.request.method) && drawsInThreads()) return drawn(event);
  const work = async () => {
    if (!isApi) event.locals.settings = await ask<Settings>('settings.read');
    return resolve(event, {
      transformPageChunk: ({ html }) => html.replace('%corvel.theme%', event.locals.settings.theme),
      // Fonts come when their letters are used; those of every page come at once.
      preload: ({ type, path }) =>
        type === 'js' || type === 'css' || (type === 'font' && FIRST_FONTS.test(path))
    });
  };
  const response = isApi ? await answerApi(work, event.request.method) : await work();
  response.headers.set('Referrer-Policy', 'no-referrer');
  // What is kept away from the server is kept by its build.
  if (!isApi) response.headers.set('Corvel-Build', version);
  return response;
};

/** What a page says of an error that nobody foresaw. */
export const handleError: HandleServerError = ({ error, status, message }) => {
  if (status === 404) return { message };
  console.error(error);
  return {
    message: fileProblem(error)?.error.message ?? 'Corvel could not show this; the fault is its own.'
  };
};
