/** Which requests are let in: whom the server is called by, where a change comes from, what a body says it is. */
import type { ApiError } from '../../api/errors';

/** Names of this machine for itself. */
const LOOPBACK = /^(localhost|127(?:\.\d{1,3}){3}|\[::1\])(:\d+)?$/;
const READING = new Set(['GET', 'HEAD', 'OPTIONS']);

export interface Refusal {
  readonly status: 403 | 415;
  readonly error: ApiError;
}

/**
 * Names under which this server may be called: those of CORVEL_NAMES, separated by commas or spaces, where it listens elsewhere than on
 * loopback.
 */
function mayBeCalled(host: string): boolean {
  const names = (process.env.CORVEL_NAMES ?? '')
    .toLowerCase()
    .split(/[\s,]+/)
    .filter(Boolean);
  if (names.length === 0) return LOOPBACK.test(host);
  return names.includes(host) || names.includes(host.replace(/:\d+$/, ''));
}

const hasBody = ({ headers }: Request) =>
  headers.has('transfer-encoding') || Number(headers.get('content-length') ?? 0) > 0;

/** Why a request is not let in; null where it is. */
export function refusal(request: Request, isApi: boolean): Refusal | null {
  const forbidden = (message: string): Refusal => ({ status: 403, error: { code: 'forbidden', message } });
  const host = (request.headers.get('host') ?? '').toLowerCase();
  if (!mayBeCalled(host)) return forbidden('This server does not answer to the name it was called by.');
  // A page elsewhere may link to Corvel's pages; it may not set its routes to work.
  if (isApi && request.headers.get('sec-fetch-site') === 'cross-site')
    return forbidden('The routes are asked by Corvel’s own pages only.');
  if (READING.has(request.method)) return null;
  const origin = request.headers.get('origin');
  const isForeign = origin !== null && (!URL.canParse(origin) || new URL(origin).host !== host);
  if (isForeign || request.headers.get('sec-fetch-site') === 'cross-site')
    return forbidden('Changes are taken from Corvel’s own pages only.');
  // Without its type the framework hands on no body at all.
  if (hasBody(request) && !request.headers.get('content-type'))
    return {
      status: 415,
      error: {
        code: 'no-content-type',
        message: 'The request does not say what its body is; send a content-type, application/json for JSON.'
      }
    };
  return null;
}
