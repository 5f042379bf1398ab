/// <reference types="@sveltejs/kit" />
/// <reference no-default-lib="true" />
/// <reference lib="esnext" />
/// <reference lib="webworker" />
/**
 * Corvel without its server: the shell, and the pages that were looked at lately. Everything of one build stands in caches
 * with its name, so that two builds never mix; a new build waits until no page of the old one is open.
 */
import { base, build, files, version } from '$service-worker';

const worker = globalThis as unknown as ServiceWorkerGlobalScope;

const SHELL = `corvel-shell-${version}`;
const PAGES = `corvel-pages-${version}`;
/** The page that is shown where none is kept. */
const AWAY = `${base}/away.html`;
/** Pages that are kept, the ones asked for last. */
const MOST_PAGES = 60;
/** Milliseconds after which a server that does not answer counts as away, where a kept page can be shown instead. */
const PATIENCE = 8000;

/** Sounds come when they are heard. */
const shell = [...build, ...files].filter((file) => !/\.(?:ogg|txt|map)$/.test(file));
const immutable = new Set(build);

/** Pages of the songbook, the charts and the places; what is behind the routes is never kept. */
const isPage = ({ pathname }: URL) =>
  !pathname.startsWith(`${base}/api/`) && !pathname.startsWith(`${base}/_app/`) && !files.includes(pathname);

worker.addEventListener('install', (event) => {
  event.waitUntil(caches.open(SHELL).then((cache) => cache.addAll(shell)));
});

worker.addEventListener('activate', (event) => {
  const outdated = async () => {
    const names = await caches.keys();
    const others = names.filter((name) => name.startsWith('corvel-') && name !== SHELL && name !== PAGES);
    await Promise.all(others.map((name) => caches.delete(name)));
    // The page that brought this worker is kept from the start, and the songbook with it.
    await worker.clients.claim();
    const open = await worker.clients.matchAll({ type: 'window' });
    const first = new Set([`${base}/`, ...open.map((client) => new URL(client.url).pathname)]);
    await Promise.all(
      [...first]
        .map((path) => new URL(path, worker.location.origin))
        .filter(isPage)
        .map(keepAnew)
    );
  };
  event.waitUntil(outdated());
});

/** Keeps a page of this build; one of another build is shown, and not kept. */
async function keep(request: Request, response: Response): Promise<void> {
  if (response.status !== 200 || response.headers.get('corvel-build') !== version) return;
  const cache = await caches.open(PAGES);
  // Asked for last stands last.
  await cache.delete(request);
  await cache.put(request, response);
  const pages = await cache.keys();
  await Promise.all(pages.slice(0, Math.max(0, pages.length - MOST_PAGES)).map((old) => cache.delete(old)));
}

/** A page by its address without what it is asked with: view, change and position are found again by the page itself. */
const plain = (url: URL) => new Request(url.origin + url.pathname, { headers: { accept: 'text/html' } });

/** Fetches a page that was come to without loading it, or that has been changed since, so that it can be opened later. */
async function keepAnew(url: URL): Promise<void> {
  const request = plain(url);
  const response = await fetch(request).catch(() => null);
  if (response) await keep(request, response);
}

async function pageFor(request: Request, url: URL): Promise<Response> {
  const cached = await (await caches.open(PAGES)).match(plain(url));
  try {
    const signal = cached ? AbortSignal.timeout(PATIENCE) : null;
    const response = await fetch(request, { signal });
    void keep(plain(url), response.clone()).catch(() => undefined);
    return response;
  } catch {
    return cached ?? (await caches.match(AWAY)) ?? Response.error();
  }
}

async function fileFor(request: Request, { origin, pathname }: URL): Promise<Response> {
  const shelf = await caches.open(SHELL);
  // By its exact address: to leave out what it is asked with, the browser would look through the whole cache for each file.
  const address = origin + pathname;
  const cached = await shelf.match(address);
  if (cached && !request.headers.has('range')) return cached;
  const response = await fetch(request);
  // Sounds that were heard are there again; a part of one is not the whole of it.
  if (response.status === 200) void shelf.put(address, response.clone()).catch(() => undefined);
  return response;
}

worker.addEventListener('fetch', (event) => {
  const { request } = event;
  if (request.method !== 'GET') return;
  const url = new URL(request.url);
  if (url.origin !== worker.location.origin) return;
  if (request.mode === 'navigate' && isPage(url)) event.respondWith(pageFor(request, url));
  else if (immutable.has(url.pathname) || files.includes(url.pathname))
    event.respondWith(fileFor(request, url));
});

/** A page tells what it shows: it came there without loading, or what it shows has been saved. */
worker.addEventListener('message', (event) => {
  const { keep: path } = (event.data ?? {}) as { readonly keep?: unknown };
  if (typeof path !== 'string' || !path.startsWith('/')) return;
  const url = new URL(path, worker.location.origin);
  if (url.origin === worker.location.origin && isPage(url)) event.waitUntil(keepAnew(url));
});
