import { errorResponse } from '$lib/server/web/answer';
import type { RequestHandler } from './$types';

/** Whatever else is asked for under /api. */
export const fallback: RequestHandler = ({ url }) =>
  errorResponse(404, {
    code: 'no-such-route',
    message: `There is nothing at ${url.pathname}; see docs/api.md.`
  });
