// The door of a Corvel that listens elsewhere than on its own machine: it asks for the key once, before anything else answers.
import { createHmac, timingSafeEqual } from 'node:crypto';
import { parse as readForm } from 'node:querystring';

/** Letters that a key has at least. */
export const SHORTEST_KEY = 16;
/** Keys that may be tried within a minute. */
const GUESSES = 5;
const MINUTE = 60_000;
/** Bytes of a form with a key. */
const MOST_BYTES = 4096;
const COOKIE = '__Host-corvel-key';
const YEAR = 365 * 24 * 60 * 60;
/** Where the form goes; no page of Corvel's has this path. */
const PATH = '/let-in';

const LOOPBACK = /^(localhost|127(\.\d{1,3}){3}|::1|\[::1\])$/i;

/** Whether a host is this machine itself. */
export const isLoopback = (host) => LOOPBACK.test(host);

/** A host as it stands in an address: IPv6 in brackets. */
export const inAddress = (host) => (host.includes(':') && !host.startsWith('[') ? `[${host}]` : host);

/** Why Corvel may not be started so; null where it may. `names` and `key` are CORVEL_NAMES and CORVEL_KEY. */
export function startRefusal({ host, names, key }) {
  if (isLoopback(host)) return null;
  const says = `HOST=${host} lets other machines in.`;
  if ((key ?? '').length < SHORTEST_KEY)
    return `${says} Set CORVEL_KEY to a key of ${SHORTEST_KEY} characters and more, which every browser is asked for once.`;
  if (!(names ?? '').trim())
    return `${says} Set CORVEL_NAMES to the names under which it is reached, as they stand in the browser's address: CORVEL_NAMES="corvel.example".`;
  return null;
}

const digest = (secret, text) => createHmac('sha256', secret).update(text).digest();
const isSame = (one, other) => one.length === other.length && timingSafeEqual(one, other);

function cookieOf(request) {
  for (const part of (request.headers.cookie ?? '').split(';')) {
    const [name, value] = part.trim().split('=');
    if (name === COOKIE) return value ?? '';
  }
  return '';
}

const page = (says) => `<!doctype html>
<html lang="en"><head><meta charset="utf-8"><meta name="viewport" content="width=device-width"><title>Corvel</title>
<style>body{font:1.125rem/1.5 sans-serif;max-width:24rem;margin:20vh auto;padding:0 1rem;background:#f7f2e8;color:#221d16}
input,button{font:inherit;padding:.6rem;min-height:44px;width:100%;box-sizing:border-box;margin-top:.5rem;border:1px solid #a2937b;border-radius:6px}
button{background:#1c2529;color:#fdf8ec;border-color:#1c2529}h1{font-family:Georgia,serif;font-weight:400}</style></head>
<body><h1>Corvel</h1><form method="post" action="${PATH}"><label for="key">The key of this songbook</label>
<input id="key" name="key" type="password" autocomplete="current-password" autofocus required>
<button>Open the songbook</button>${says ? `<p role="alert">${says}</p>` : ''}</form></body></html>`;

/**
 * Lets a request through (true), or answers it. `now` gives milliseconds; guesses are counted over all who guess, since behind a proxy
 * all look alike.
 */
export function makeGate({ key, names, now = Date.now }) {
  const known = names
    .toLowerCase()
    .split(/[\s,]+/)
    .filter(Boolean);
  const pass = digest(key, 'corvel').toString('base64url');
  let guesses = [];

  const isNamed = (host) => known.includes(host) || known.includes(host.replace(/:\d+$/, ''));
  const say = (response, status, text, headers = {}) => {
    const isPage = text.startsWith('<');
    response.writeHead(status, {
      'content-type': isPage ? 'text/html; charset=utf-8' : 'application/json',
      'cache-control': 'no-store',
      'x-content-type-options': 'nosniff',
      'content-security-policy':
        "default-src 'none'; style-src 'unsafe-inline'; form-action 'self'; frame-ancestors 'none'",
      'referrer-policy': 'same-origin',
      ...headers
    });
    response.end(text);
  };
  const refuse = (response, status, code, message, headers) =>
    say(response, status, JSON.stringify({ error: { code, message } }), headers);

  async function bodyOf(request) {
    let text = '';
    for await (const piece of request) {
      text += piece;
      if (text.length > MOST_BYTES) return '';
    }
    return text;
  }

  async function tryKey(request, response) {
    guesses = guesses.filter((at) => now() - at < MINUTE);
    if (guesses.length >= GUESSES)
      return say(response, 429, page('Too many keys were tried. Wait a minute, then try again.'), {
        'retry-after': '60'
      });
    guesses.push(now());
    const { key: guess } = readForm(await bodyOf(request));
    if (typeof guess !== 'string' || !isSame(digest(key, guess), digest(key, key)))
      return say(response, 401, page('This is not the key.'));
    guesses.pop();
    const cookie = `${COOKIE}=${pass}; Path=/; Max-Age=${YEAR}; Secure; HttpOnly; SameSite=Strict`;
    return say(response, 303, '', { 'set-cookie': cookie, location: '/' });
  }

  return async (request, response) => {
    const host = (request.headers.host ?? '').toLowerCase();
    if (!isNamed(host)) {
      refuse(response, 403, 'forbidden', 'This server does not answer to the name it was called by.');
      return false;
    }
    const { origin } = request.headers;
    if (origin !== undefined && !(URL.canParse(origin) && isNamed(new URL(origin).host.toLowerCase()))) {
      refuse(response, 403, 'forbidden', 'Corvel is asked by its own pages only.');
      return false;
    }
    if (request.method === 'POST' && request.url === PATH) {
      await tryKey(request, response);
      return false;
    }
    if (isSame(Buffer.from(cookieOf(request)), Buffer.from(pass))) return true;
    const wantsPage = request.method === 'GET' && (request.headers.accept ?? '').includes('text/html');
    if (wantsPage) say(response, 401, page(''));
    else refuse(response, 401, 'no-key', 'This Corvel asks for its key; open it in a browser first.');
    return false;
  };
}
