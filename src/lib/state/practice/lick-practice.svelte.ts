/** Licks as they are practised: where each is known, taken up, marked; on the server first. */
/* eslint-disable svelte/prefer-svelte-reactivity -- the maps here are made anew and never changed in place */
import type { ItemWithProgress } from '$lib/api/practice';
import type { LickData } from '$lib/api/lick';
import type { LickItem } from '$lib/core/practice/items/lick-items';
import { LICK_TEMPO, lickItems, lickPlaceOf } from '$lib/core/practice/items/lick-items';
import { STANDARD } from '$lib/core/neck/tuning';
import { Attempts } from '../attempts.svelte';
import { callRoute } from '../call';
import { dayHere } from '../day-here';
import { logBox } from './practice-log';

const MINUTES = 3;
const call = <T>(path: string, method?: string, body?: unknown) =>
  callRoute<T>(`practice/${path}`, 'nothing was changed', method, body);

export class LickPractice extends Attempts {
  /** Items of licks, by their id; empty until they are loaded. */
  items: ReadonlyMap<string, ItemWithProgress> = $state.raw(new Map());

  async load(): Promise<void> {
    await this.attempt(async () => {
      await logBox.send();
      const { items } = await call<{ items: ItemWithProgress[] }>(`items?day=${dayHere(Date.now())}`);
      this.items = new Map(items.flatMap((item) => (lickPlaceOf(item.id) ? [[item.id, item] as const] : [])));
    });
  }

  isPractised(lick: string): boolean {
    for (const id of this.items.keys()) if (lickPlaceOf(id)?.lick === lick) return true;
    return false;
  }

  /** Every place of a lick becomes something to practise; the first is open at once. */
  async takeUp(id: string, name: string, data: LickData): Promise<boolean> {
    const done = await this.attempt(() =>
      call('items', 'POST', {
        items: lickItems({ id, name, data }, STANDARD).map((item) => ({
          id: item.id,
          data: {
            what: 'lick',
            name: item.name,
            line: id,
            key: item.key,
            after: item.after,
            minutes: MINUTES,
            tempo: LICK_TEMPO
          }
        }))
      })
    );
    if (done) await this.load();
    return done;
  }

  /** Played clean in a place at a tempo. */
  async mark(item: LickItem, tempo: number, clean: boolean): Promise<void> {
    const at = Date.now();
    logBox.put({
      id: crypto.randomUUID(),
      item: item.id,
      chart: null,
      kind: 'own',
      what: item.name,
      startedAt: at - 60_000,
      day: dayHere(at),
      seconds: 60,
      rounds: 1,
      tempo,
      clean,
      key: item.key,
      area: null,
      note: '',
      stumbles: [],
      revision: 1
    });
    await this.load();
    // The mark itself waits on the device: pressed again it would be told twice.
    if (this.problem) this.problem = 'Kept on this device; it is sent as soon as the server answers.';
  }
}
