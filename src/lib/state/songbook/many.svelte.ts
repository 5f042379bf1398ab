/** Many charts at once: which are selected, and long work on them that says how far it is and stops when told. */
import { SvelteSet } from 'svelte/reactivity';
import type { ChartSummary, ManyCharts } from '$lib/api/songbook';
import { nth } from '$lib/core/base/list';
import { changeMany, listCharts, wholeChart } from './client';

/** Charts in one request. */
const AT_ONCE = 50;
const PAGE = 200;

export class Many {
  isOn = $state(false);
  readonly ids = new SvelteSet<string>();
  progress: number | null = $state(null);
  /** Why the last change did not come to its end; what it was done to before keeps it. */
  failure: unknown = null;
  #isStopped = false;
  /** The chart that was pressed last, from which a range goes. */
  #last: string | null = null;

  begin(): void {
    this.isOn = true;
    this.ids.clear();
    this.#last = null;
  }

  end(): void {
    this.stop();
    this.isOn = false;
    this.ids.clear();
  }

  /** Selects a chart or lets it go; with `isRange` all from the one pressed before are as it is now. */
  press(id: string, shown: readonly ChartSummary[], isRange: boolean): void {
    const placeOf = (one: string | null) => shown.findIndex((chart) => chart.id === one);
    const [from, to] = [placeOf(this.#last), placeOf(id)];
    const isIn = !this.ids.has(id);
    const touched =
      isRange && from >= 0 && to >= 0
        ? shown.slice(Math.min(from, to), Math.max(from, to) + 1).map((chart) => chart.id)
        : [id];
    for (const one of touched) {
      if (isIn) this.ids.add(one);
      else this.ids.delete(one);
    }
    this.#last = id;
  }

  /** All that a query finds, beyond those that are shown. */
  async all(query: Record<string, string>, total: number): Promise<void> {
    await this.#work(Math.ceil(total / PAGE), async (page) => {
      const { charts } = await listCharts({ ...query, offset: String(page * PAGE), limit: String(PAGE) });
      for (const { id } of charts) this.ids.add(id);
    });
  }

  stop(): void {
    this.#isStopped = true;
  }

  /** Does one thing to all of them; gives those it was done to, also where it was stopped, or failed on the way. */
  async change(what: ManyCharts['what'], tag?: string, ids = [...this.ids]): Promise<string[]> {
    const done: string[] = [];
    this.failure = null;
    await this.#work(Math.ceil(ids.length / AT_ONCE), async (turn) => {
      const some = ids.slice(turn * AT_ONCE, (turn + 1) * AT_ONCE);
      done.push(...(await changeMany({ ids: some, what, ...(tag === undefined ? {} : { tag }) })));
    }).catch((error: unknown) => (this.failure = error));
    return done;
  }

  /** Every chart as one file, by its name in a zip; null where it was stopped. */
  async asFiles(): Promise<Blob | null> {
    const { strToU8, zipSync } = await import('fflate');
    const files: Record<string, Uint8Array> = {};
    const ids = [...this.ids];
    const isWhole = await this.#work(ids.length, async (turn) => {
      const { title, text } = await wholeChart(nth(ids, turn));
      const plain = title.replaceAll(/[^\p{L}\p{N} -]+/gu, '').trim() || 'chart';
      const known = Object.keys(files).filter((name) => name.startsWith(plain)).length;
      files[`${plain}${known ? ` ${known + 1}` : ''}.corvel.json`] = strToU8(text);
    });
    return isWhole
      ? new Blob([zipSync(files) as Uint8Array<ArrayBuffer>], { type: 'application/zip' })
      : null;
  }

  /** Whether it came to its end. */
  async #work(turns: number, work: (turn: number) => Promise<void>): Promise<boolean> {
    this.#isStopped = false;
    this.progress = 0;
    try {
      for (let turn = 0; turn < turns; turn++) {
        await work(turn);
        if (this.#isStopped) return turn === turns - 1;
        this.progress = (turn + 1) / turns;
      }
      return true;
    } finally {
      this.progress = null;
    }
  }
}
