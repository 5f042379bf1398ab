/** The songbook's routes as the page calls them. */
import type { ChartFile } from '$lib/api/chart-file';
import type { ChartList, ManyCharts, StoredChart } from '$lib/api/songbook';
import { declared, directivesIn } from '$lib/core/chart/directives';
import type { Plan } from '$lib/core/plan/model';
import { callSongbook } from '$lib/state/call';
import { tell } from '$lib/state/windows';

const call = <T>(path: string, method?: string, body?: unknown) =>
  callSongbook<T>(path, 'nothing was changed', method, body);

export const listCharts = (query: Record<string, string>) =>
  call<ChartList>(`?${new URLSearchParams(query).toString()}`);
/** `id` is the client's own, so that a call that is sent twice makes one chart. */
export const createChart = (id: string, source: string, plan?: Plan) =>
  call<StoredChart>('', 'POST', { id, source, ...(plan ? { plan } : {}) });
/** A chart that was saved as one file. */
export const importChartFile = (id: string, file: unknown) =>
  call<StoredChart>('/file', 'POST', { id, file });
export const duplicateChart = (id: string) => call<StoredChart>(`/${id}/duplicate`, 'POST');

export async function renameChart(id: string, title: string): Promise<void> {
  const { version } = await call<{ version: number }>(`/${id}/rename`, 'POST', { title });
  tell({ kind: 'saved', chart: id, version });
}

export async function deleteChart(id: string): Promise<void> {
  await call(`/${id}`, 'DELETE');
  tell({ kind: 'deleted', chart: id });
}

export async function restoreChart(id: string): Promise<void> {
  await call(`/${id}/bring-back`, 'POST');
  tell({ kind: 'brought back', chart: id });
}

/** Does one thing to many charts, and gives those it was done to; windows in which they are open are told. */
export async function changeMany(change: ManyCharts): Promise<readonly string[]> {
  const { changed } = await call<{ changed: string[] }>('/many', 'POST', change);
  const kind = change.what === 'delete' ? 'deleted' : change.what === 'bring back' ? 'brought back' : null;
  if (kind) for (const chart of changed) tell({ kind, chart });
  return changed;
}

/** A chart as one file, and what it is called. */
export async function wholeChart(id: string): Promise<{ readonly title: string; readonly text: string }> {
  const file = await call<ChartFile>(`/${id}/file`);
  return {
    title: declared(directivesIn(file.chart), 'title') ?? 'Untitled chart',
    text: `${JSON.stringify(file, null, 1)}\n`
  };
}
