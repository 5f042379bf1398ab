/** The routes of a chart's lines as the page calls them. A failure is thrown as a sentence for the player. */
import type { ApiError } from '$lib/api/errors';
import type { LineData, StoredLine } from '$lib/api/line';

async function call<T>(chart: string, path: string, method = 'GET', body?: unknown): Promise<T> {
  const response = await fetch(`/api/v1/songbook/${chart}/lines${path}`, {
    method,
    ...(body === undefined
      ? {}
      : { headers: { 'content-type': 'application/json' }, body: JSON.stringify(body) })
  }).catch(() => null);
  if (!response) {
    throw new Error('Corvel’s server does not answer; the line is still here. Try again in a moment.');
  }
  const answer = (await response.json().catch(() => ({}))) as T & { error?: ApiError };
  if (!response.ok) throw new Error(answer.error?.message ?? 'That did not work; nothing was changed.');
  return answer;
}

export const listLines = (chart: string) => call<{ lines: StoredLine[] }>(chart, '');
/** `id` is the client's own, so that a call that is sent twice keeps one line. */
export const keepLine = (chart: string, id: string, name: string, data: LineData) =>
  call<StoredLine>(chart, '', 'POST', { id, name, data });
export const changeLine = (
  chart: string,
  id: string,
  edit: { readonly base: number; readonly name?: string; readonly data?: LineData }
) => call<{ version: number }>(chart, `/${id}`, 'PUT', edit);
export const deleteLine = (chart: string, id: string) => call(chart, `/${id}`, 'DELETE');
export const bringBackLine = (chart: string, id: string) => call(chart, `/${id}/bring-back`, 'POST');
