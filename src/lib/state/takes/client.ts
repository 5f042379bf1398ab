/** The routes of a chart's takes as the page calls them. */
import type { ListedTake, StoredTake, TakeData, TakeSounds } from '$lib/api/take';
import { callRoute, callSongbook } from '../call';

const call = <T>(chart: string, path: string, method?: string, body?: unknown) =>
  callSongbook<T>(`/${chart}/takes${path}`, 'the take is still here', method, body);

export interface NewTake {
  readonly id: string;
  readonly name: string;
  readonly playedAt: number;
  readonly day: string;
  readonly seconds: number;
  readonly data: TakeData;
}

export const listTakes = (chart: string) => call<{ takes: ListedTake[] }>(chart, '');
export const openTake = (chart: string, id: string) => call<StoredTake>(chart, `/${id}`);
export const keepTake = (chart: string, take: NewTake) =>
  callSongbook<StoredTake>(`/${chart}/takes`, 'this take is not kept yet', 'POST', take);
export const changeTake = (
  chart: string,
  id: string,
  edit: { readonly base: number; readonly name?: string; readonly seconds?: number; readonly data?: TakeData }
) => call<{ version: number }>(chart, `/${id}`, 'PUT', edit);
export const deleteTake = (chart: string, id: string) => call(chart, `/${id}`, 'DELETE');
export const restoreTake = (chart: string, id: string) => call(chart, `/${id}/bring-back`, 'POST');
export const forgetSound = (chart: string, id: string) => call(chart, `/${id}/sound`, 'DELETE');
export const takeSounds = () => callRoute<TakeSounds>('takes', 'what the sounds fill is not known');

export const soundPath = (chart: string, id: string) => `/api/v1/songbook/${chart}/takes/${id}/sound`;
