/** The routes of a chart's lines as the page calls them. */
import type { LineData, StoredLine } from '$lib/api/line';
import { callSongbook } from '../call';

const call = <T>(chart: string, path: string, method?: string, body?: unknown) =>
  callSongbook<T>(`/${chart}/lines${path}`, 'the line is still here', method, body);

export const listLines = (chart: string) => call<{ lines: StoredLine[] }>(chart, '');
/** `id` is the client's own, so that a call that is sent twice keeps one line. */
export const keepLine = (
  chart: string,
  id: string,
  line: { readonly name: string; readonly chartVersion?: number | null; readonly data: LineData }
) => call<StoredLine>(chart, '', 'POST', { id, ...line });
export const changeLine = (
  chart: string,
  id: string,
  edit: {
    readonly base: number;
    readonly name?: string;
    readonly chartVersion?: number;
    readonly data?: LineData;
  }
) => call<{ version: number }>(chart, `/${id}`, 'PUT', edit);
export const deleteLine = (chart: string, id: string) => call(chart, `/${id}`, 'DELETE');
export const restoreLine = (chart: string, id: string) => call(chart, `/${id}/bring-back`, 'POST');
