/** The songbook's routes as the page calls them. */
import type { ChartList, StoredChart } from '$lib/api/songbook';
import { callSongbook } from '$lib/state/call';
import { tell } from '$lib/state/windows';

const call = <T>(path: string, method?: string, body?: unknown) =>
  callSongbook<T>(path, 'nothing was changed', method, body);

export const listCharts = (query: Record<string, string>) =>
  call<ChartList>(`?${new URLSearchParams(query).toString()}`);
/** `id` is the client's own, so that a call that is sent twice makes one chart. */
export const createChart = (id: string, source: string) => call<StoredChart>('', 'POST', { id, source });
/** A chart that was saved as one file. */
export const bringChartFile = (id: string, file: unknown) => call<StoredChart>('/file', 'POST', { id, file });
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
