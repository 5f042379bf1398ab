/** The songbook's routes as the page calls them. A failure is thrown as a sentence for the player. */
import type { ApiError } from '$lib/api/errors';
import type { ChartList, StoredChart } from '$lib/api/songbook';

async function call<T>(path: string, method = 'GET', body?: unknown): Promise<T> {
  const response = await fetch(`/api/v1/songbook${path}`, {
    method,
    ...(body === undefined
      ? {}
      : { headers: { 'content-type': 'application/json' }, body: JSON.stringify(body) })
  }).catch(() => null);
  if (!response)
    throw new Error('Corvel’s server does not answer; nothing was changed. Try again in a moment.');
  const answer = (await response.json().catch(() => ({}))) as T & { error?: ApiError };
  if (!response.ok) throw new Error(answer.error?.message ?? 'That did not work; nothing was changed.');
  return answer;
}

export const listCharts = (query: Record<string, string>) =>
  call<ChartList>(`?${new URLSearchParams(query).toString()}`);
export const createChart = (source: string) => call<StoredChart>('', 'POST', { source });
export const duplicateChart = (id: string) => call<StoredChart>(`/${id}/duplicate`, 'POST');
export const renameChart = (id: string, title: string) => call(`/${id}/rename`, 'POST', { title });
export const deleteChart = (id: string) => call(`/${id}`, 'DELETE');
export const bringBackChart = (id: string) => call(`/${id}/bring-back`, 'POST');
