/** The page of the day: the plan for the minutes there are, items, set lists; changed on the server first. */
/* eslint-disable svelte/prefer-svelte-reactivity -- the maps here are made anew and never changed in place */
import type {
  ItemData,
  ItemWithProgress,
  SetListData,
  StoredItem,
  StoredSetList,
  Today
} from '$lib/api/practice';
import type { WeekAhead } from '$lib/core/practice/session/ahead';
import { Attempts } from '../attempts.svelte';
import { callRoute } from '../call';
import { dayHere } from '../day-here';
import { logBox } from './practice-log';
import { inPlaceOf, runParts, type RunPart } from './run-part';
import { itemsOf } from './take-up';

const AWAY = 'nothing was changed';
const call = <T>(path: string, method?: string, body?: unknown) =>
  callRoute<T>(`practice/${path}`, AWAY, method, body);

/** Tunings of the set list that drives the day, by chart. */
function tuningsOf({ setLists, plan, day }: Today): ReadonlyMap<string, string> {
  const list = plan.readiness
    ? setLists.find(({ data }) => data && data.charts.length > 0 && data.day >= day)
    : undefined;
  return new Map(list?.data?.charts.map(({ chart, tuning }) => [chart, tuning]));
}

export class TodayState extends Attempts {
  now: Today = $state.raw(undefined as unknown as Today);
  parts: readonly RunPart[] = $state.raw([]);

  /** Edits wait for one another: each is made on what the one before has become. */
  #turn: Promise<void> = Promise.resolve();
  /** Edits of set lists that wait. */
  #waiting = 0;

  constructor(today: Today) {
    super();
    this.#show(today);
  }

  #show(today: Today): void {
    this.now = today;
    this.parts = runParts(today.plan.session, today.items, this.#titles(today), tuningsOf(today));
  }

  #titles({ charts }: Today): ReadonlyMap<string, string> {
    return new Map(charts.map(({ id, title }) => [id, title]));
  }

  /** What is practised by chart, in the player's order. */
  readonly byChart = $derived.by(() => {
    const groups = new Map<string, { chart: string | null; title: string; items: ItemWithProgress[] }>();
    for (const item of this.now.items) {
      const title = item.chart === null ? 'Your own' : (item.title ?? 'A deleted chart');
      const key = item.chart ?? '';
      const group = groups.get(key) ?? { chart: item.chart, title, items: [] };
      group.items.push(item);
      groups.set(key, group);
    }
    return [...groups.values()];
  });

  /** Reads the day again, with what has just been played. */
  async load(minutes = this.now.minutes): Promise<void> {
    await this.attempt(async () => {
      await logBox.send();
      this.#show(await call<Today>(`today?${this.#query(minutes)}`));
    });
  }

  /** Four weeks from today on, if all goes as now. */
  async ahead(): Promise<readonly WeekAhead[]> {
    const { weeks } = await callRoute<{ weeks: readonly WeekAhead[] }>(
      `practice/ahead?${this.#query(this.now.minutes)}`,
      'the weeks ahead could not be loaded'
    );
    return weeks;
  }

  #query(minutes: number): URLSearchParams {
    const at = Date.now();
    return new URLSearchParams({
      day: dayHere(at),
      minutes: String(minutes),
      offset: String(new Date(at).getTimezoneOffset())
    });
  }

  // The plan, as the player bends it.

  get planned(): number {
    return this.parts.reduce((sum, { minutes }) => sum + minutes, 0);
  }

  order(parts: readonly RunPart[]): void {
    this.parts = parts;
  }

  leaveOut(id: string): void {
    this.parts = this.parts.filter((part) => part.id !== id);
  }

  lengthen(id: string, by: number): void {
    this.parts = this.parts.map((part) =>
      part.id === id ? { ...part, minutes: Math.min(60, Math.max(1, part.minutes + by)) } : part
    );
  }

  /** Another item in a part's place: the next one that is open and not in the plan. */
  swap(id: string): boolean {
    const taken = new Set(this.parts.map(({ item }) => item));
    const { items } = this.now;
    const part = this.parts.find((one) => one.id === id);
    const open = items.filter(({ id: item, progress }) => progress?.isOpen && !taken.has(item));
    const at = items.findIndex(({ id: item }) => item === part?.item);
    const next = open.find(({ id: item }) => items.findIndex((one) => one.id === item) > at) ?? open[0];
    const own = part && next ? inPlaceOf(part, next) : null;
    if (!own) return false;
    this.parts = this.parts.map((one) => (one === part ? own : one));
    return true;
  }

  // Items.

  /** Takes a chart up: its items in the practitioners' order, as far as they are not there. Gives how many were added. */
  async takeUp(chart: string): Promise<number> {
    let added = 0;
    await this.attempt(async () => {
      const known = new Set(this.now.items.map(({ id }) => id));
      const items = (await itemsOf(chart)).filter(({ id }) => !known.has(id));
      added = items.length;
      if (added > 0) await call('items', 'POST', { items });
    });
    if (added) await this.load();
    return added;
  }

  async addItem(chart: string | null, data: ItemData): Promise<boolean> {
    const done = await this.attempt(() =>
      call('items', 'POST', { items: [{ id: crypto.randomUUID(), chart, data }] })
    );
    if (done) await this.load();
    return done;
  }

  change({ id }: StoredItem, part: Partial<ItemData>): Promise<void> {
    this.#turn = this.#turn.then(async () => {
      const item = this.now.items.find((one) => one.id === id);
      if (!item?.data) return;
      const data = { ...item.data, ...part };
      const done = await this.attempt(() =>
        call(`items/${encodeURIComponent(id)}`, 'PUT', { base: item.version, data })
      );
      if (done) await this.load();
    });
    return this.#turn;
  }

  /** Deletes items; gives what brings them back, null where that failed. */
  async remove(items: readonly StoredItem[]): Promise<(() => Promise<void>) | null> {
    const done = await this.attempt(async () => {
      for (const { id } of items) await call(`items/${encodeURIComponent(id)}`, 'DELETE');
    });
    // What went wrong stays told while the page is read again.
    const { problem } = this;
    await this.load();
    if (!done) this.problem = problem;
    if (!done) return null;
    return async () => {
      await this.attempt(async () => {
        for (const { id } of items) await call(`items/${encodeURIComponent(id)}/bring-back`, 'POST');
      });
      await this.load();
    };
  }

  async reorder(order: readonly string[]): Promise<void> {
    const base = this.now.items.map(({ id }) => id);
    const byId = new Map(this.now.items.map((item) => [item.id, item]));
    const moved = order.flatMap((id) => byId.get(id) ?? []);
    const rest = this.now.items.filter(({ id }) => !order.includes(id));
    this.now = { ...this.now, items: [...moved, ...rest] };
    const all = this.now.items.map(({ id }) => id);
    // Also where it was refused: what another window has made of it is shown.
    await this.attempt(() => call('items', 'PUT', { order: all, base }));
    const { problem } = this;
    await this.load();
    this.problem = problem;
  }

  // Set lists.

  async keepSetList(name: string, data: SetListData): Promise<void> {
    const done = await this.attempt(() => call('set-lists', 'POST', { id: crypto.randomUUID(), name, data }));
    if (done) await this.load();
  }

  /** What is edited of a set list is shown at once, so that the next edit is made of it. */
  changeSetList({ id }: StoredSetList, edit: { name?: string; data?: SetListData }): Promise<void> {
    const put = (part: Partial<StoredSetList>) => {
      const setLists = this.now.setLists.map((one) => (one.id === id ? { ...one, ...part } : one));
      this.now = { ...this.now, setLists };
    };
    put(edit);
    this.#waiting += 1;
    this.#turn = this.#turn.then(async () => {
      const base = this.now.setLists.find((one) => one.id === id)?.version;
      const done = await this.attempt(async () => {
        const { version } = await call<{ version: number }>(`set-lists/${id}`, 'PUT', { base, ...edit });
        put({ version });
      });
      this.#waiting -= 1;
      if (done && this.#waiting > 0) return;
      // Also where it was refused: what another window has made of it is shown.
      const { problem } = this;
      await this.load();
      if (!done) this.problem = problem;
    });
    return this.#turn;
  }

  async removeSetList(list: StoredSetList): Promise<(() => Promise<void>) | null> {
    const done = await this.attempt(() => call(`set-lists/${list.id}`, 'DELETE'));
    if (!done) return null;
    await this.load();
    return async () => {
      await this.attempt(() => call(`set-lists/${list.id}/bring-back`, 'POST'));
      await this.load();
    };
  }
}
