/** Print what of a chart in several keys: the chart moved into each of them, one after another, with its kept lines. */
// The map is made anew and never changed in place, so that a plain one serves.
/* eslint-disable svelte/prefer-svelte-reactivity */
import type { StoredChart } from '$lib/api/songbook';
import { lineInKey } from '$lib/core/line/in-key';
import type { LineNote } from '$lib/core/line/model';
import { homeUp, type Home } from '$lib/core/theory/tonic';
import { listLines } from '../lines/client';
import { chartInKey } from '../chart/in-key';
import { Workspace } from '../chart/workspace.svelte';

export interface BookLine {
  readonly id: string;
  readonly name: string;
  readonly notes: readonly LineNote[];
}

/** The chart in one key. */
export interface BookKey {
  /** Semitones above the chart's own key, 0 to 11. */
  readonly shift: number;
  readonly home: Home;
  readonly workspace: Workspace;
  readonly lines: readonly BookLine[];
}

/** Milliseconds between looks at a long solver. */
const LOOK = 30;
const pause = (milliseconds: number) => new Promise((ready) => setTimeout(ready, milliseconds));

export class BookKeys {
  /** The chart as it is kept. */
  readonly own: Workspace;
  /** Keys that are ready, by their shift. */
  ready: ReadonlyMap<number, BookKey> = $state.raw(new Map());
  /** How many of the keys asked for are ready, while they are made; null at rest. */
  progress: { readonly done: number; readonly of: number; readonly home: Home } | null = $state.raw(null);
  isStopped = $state(false);
  /** Why the kept lines are not there. */
  problem = $state('');
  #lines: readonly BookLine[] | null = null;
  /** Counts what was asked for, so that only the last of it goes on. */
  #turn = 0;

  constructor(private readonly chart: StoredChart) {
    this.own = new Workspace(chart, true);
  }

  /** Makes the keys that are not ready yet, in order; ends early where it is stopped, or asked for others. */
  async make(shifts: readonly number[]): Promise<void> {
    const turn = ++this.#turn;
    this.isStopped = false;
    const missing = shifts.filter((shift) => !this.ready.has(shift));
    const home = this.own.analysis.key;
    for (const [done, shift] of missing.entries()) {
      const here = homeUp(home, shift);
      this.progress = { done, of: missing.length, home: here };
      // A frame for what was made, and for the button that stops it.
      await pause(0);
      this.#lines ??= await this.#fetchLines();
      if (turn !== this.#turn) return;
      const workspace = chartInKey(this.chart.id, this.chart, home, shift, this.own.neck);
      await this.#solve(workspace, turn);
      if (turn !== this.#turn) return;
      const lines = this.#lines.map((line) => ({
        ...line,
        notes: lineInKey(line.notes, home, shift, this.own.neck)
      }));
      this.ready = new Map([...this.ready, [shift, { shift, home: here, workspace, lines }]]);
    }
    if (turn === this.#turn) this.progress = null;
  }

  /** Ends the making; what is ready stays. */
  stop(): void {
    this.#turn += 1;
    this.progress = null;
    this.isStopped = true;
  }

  /** Lets everything go with the page. */
  close(): void {
    this.#turn += 1;
    for (const { workspace } of this.ready.values()) workspace.paths.close();
    this.own.paths.close();
  }

  async #fetchLines(): Promise<readonly BookLine[]> {
    this.problem = '';
    try {
      const { lines } = await listLines(this.chart.id);
      return lines.flatMap(({ id, name, data }) => (data ? [{ id, name, notes: data.notes }] : []));
    } catch (error) {
      this.problem = (error as Error).message;
      return [];
    }
  }

  /** The target line of a chart that is too long for the page is found in a worker. */
  async #solve({ paths }: Workspace, turn: number): Promise<void> {
    if (paths.isSolvedAtOnce) return;
    const { solver } = paths;
    solver.ask({ ...paths.job, others: [] });
    while (!solver.latest && !solver.isStopped && turn === this.#turn) await pause(LOOK);
    solver.close();
  }
}
