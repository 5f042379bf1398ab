/** The songbook's routes as the page calls them. A failure is thrown as a sentence for the player. */
import type { ApiError } from '$lib/api/errors';
import type { ChartList, StoredChart } from '$lib/api/songbook';
import { tell } from '$lib/state/windows';

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
/** `id` is the client's own, so that a call that is sent twice makes one chart. */
export const createChart = (id: string, source: string) => call<StoredChart>('', 'POST', { id, source });
export const duplicateChart = (id: string) => call<StoredChart>(`/${id}/duplicate`, 'POST');

export async function renameChart(id: string, title: string): Promise<void> {
  const { version } = await call<{ version: number }>(`/${id}/rename`, 'POST', { title });
  tell({ kind: 'saved', chart: id, version });
}

export async function deleteChart(id: string): Promise<void> {
  await call(`/${id}`, 'DELETE');
  tell({ kind: 'deleted', chart: id });
}

export async function bringBackChart(id: string): Promise<void> {
  await call(`/${id}/bring-back`, 'POST');
  tell({ kind: 'brought back', chart: id });
}
