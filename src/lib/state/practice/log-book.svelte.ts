/** The log as the page shows it: a part at a time, corrected on the server first. */
import { Attempts } from '../attempts.svelte';
import type { LogPart, StoredRow } from '$lib/api/practice';
import type { TimeDay } from '$lib/core/takes/judge/time-days';
import type { LeftLine } from '$lib/core/practice/log/csv';
import { callRoute } from '../call';
import { logBox } from './practice-log';
import { dayHere } from '../day-here';

const PAGE = 60;
const call = <T>(path: string, method?: string, body?: unknown) =>
  callRoute<T>(`practice/${path}`, 'nothing was changed', method, body);

export class LogBook extends Attempts {
  rows: readonly StoredRow[] = $state.raw([]);
  /** How the player lay in time in the takes of the days that are shown. */
  time: readonly TimeDay[] = $state.raw([]);
  total = $state(0);
  isLoaded = $state(false);
  /** What became of a file that was brought. */
  taken: { readonly taken: number; readonly left: readonly LeftLine[] } | null = $state.raw(null);
  readonly #changed: () => unknown;

  /** `changed`: called when the log is another one. */
  constructor(changed: () => unknown) {
    super();
    this.#changed = changed;
  }

  async load(count = PAGE): Promise<void> {
    await this.attempt(async () => {
      await logBox.send();
      const { rows, total, time } = await call<LogPart>(`log?limit=${count}`);
      this.rows = rows;
      this.time = time;
      this.total = total;
      this.isLoaded = true;
    });
  }

  async more(): Promise<void> {
    await this.attempt(async () => {
      const { rows, total, time } = await call<LogPart>(`log?limit=${PAGE}&offset=${this.rows.length}`);
      this.rows = [...this.rows, ...rows];
      // A day that goes on over two parts came whole with each of them.
      this.time = [...this.time.filter(({ day }) => !time.some((own) => own.day === day)), ...time];
      this.total = total;
    });
  }

  async correct(row: StoredRow, part: { clean?: boolean | null; note?: string }): Promise<void> {
    await this.attempt(async () => {
      const corrected = await call<StoredRow>(`log/${row.id}`, 'PUT', { base: row.version, ...part });
      this.rows = this.rows.map((one) => (one.id === row.id ? corrected : one));
      this.#changed();
    });
  }

  /** Deletes an entry; gives what brings it back, null where that failed. */
  async remove(row: StoredRow): Promise<(() => Promise<void>) | null> {
    const done = await this.attempt(() => call(`log/${row.id}`, 'DELETE'));
    if (!done) return null;
    await this.load(this.rows.length);
    this.#changed();
    return async () => {
      await this.attempt(() => call(`log/${row.id}/bring-back`, 'POST'));
      await this.load(Math.max(PAGE, this.rows.length + 1));
      this.#changed();
    };
  }

  /** Something that was played away from here. */
  async add(what: string, minutes: number): Promise<boolean> {
    if (!what) return false;
    const at = Date.now();
    const row = {
      id: crypto.randomUUID(),
      kind: 'own',
      what,
      startedAt: at - minutes * 60_000,
      day: dayHere(at),
      seconds: minutes * 60,
      rounds: 1,
      revision: 1
    };
    const done = await this.attempt(() => call('log', 'POST', { rows: [row] }));
    if (done) await this.load(this.rows.length + 1);
    if (done) this.#changed();
    return done;
  }

  /** Takes the good lines of a file into the log. */
  async take(file: File): Promise<void> {
    this.taken = null;
    await this.attempt(async () => {
      this.taken = await call('file', 'POST', { text: await file.text() });
    });
    await this.load();
    this.#changed();
  }
}
