import { json, type Handle, type ServerInit } from '@sveltejs/kit';
import { building } from '$app/environment';
import { database } from '$lib/server/database';
import { seedDemo } from '$lib/server/demo';
import { readSettings } from '$lib/server/settings';

export const init: ServerInit = async () => {
  if (building) return;
  const db = await database();
  if (process.env.CORVEL_DEMO === '1') await seedDemo(db);
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

export const handle: Handle = async ({ event, resolve }) => {
  const refused = building ? null : refusal(event.request);
  if (refused) return json({ error: { code: 'forbidden', message: refused } }, { status: 403 });
  event.locals.db = await database();
  event.locals.settings = await readSettings(event.locals.db);
  const response = await resolve(event, {
    transformPageChunk: ({ html }) => html.replace('%corvel.theme%', event.locals.settings.theme),
    preload: ({ type }) => type === 'js' || type === 'css' || type === 'font'
  });
  response.headers.set('X-Content-Type-Options', 'nosniff');
  response.headers.set('Referrer-Policy', 'no-referrer');
  return response;
};
