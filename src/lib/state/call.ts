/** Routes that keep things, as the page calls them. A failure is thrown as a sentence for the player. */
import type { ApiError } from '$lib/api/errors';
import { reach } from './reach.svelte';

/** The server has answered, and will not: sending the same again is of no use. */
export class Refusal extends Error {
  constructor(
    message: string,
    readonly status: number
  ) {
    super(message);
  }
}

/** `away` is said where the server does not answer. */
export const callSongbook = <T>(path: string, away: string, method?: string, body?: unknown) =>
  callRoute<T>(`songbook${path}`, away, method, body);

/** The same for any route. `isLast`: the page is being left. */
export async function callRoute<T>(
  path: string,
  away: string,
  method = 'GET',
  body?: unknown,
  isLast = false
): Promise<T> {
  const response = await fetch(`/api/v1/${path}`, {
    method,
    keepalive: isLast,
    ...(body === undefined
      ? {}
      : { headers: { 'content-type': 'application/json' }, body: JSON.stringify(body) })
  }).catch(() => null);
  if (!response) {
    reach.lost();
    throw new Error(`Corvel’s server does not answer; ${away}. Try again in a moment.`);
  }
  const answer = (await response.json().catch(() => ({}))) as T & { error?: ApiError };
  if (response.ok) return answer;
  const message = answer.error?.message ?? 'That did not work; nothing was changed.';
  throw response.status < 500 ? new Refusal(message, response.status) : new Error(message);
}
