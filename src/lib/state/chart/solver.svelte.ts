/** The solver behind the page: the newest question counts, answers to older ones are dropped, long work can be stopped. */
import { proxy, wrap, type Remote } from 'comlink';
import type { Analysis } from '../../core/harmony/analysis';
import { unpackResult } from '../../workers/pack';
import type { Solved, SolverJob } from '../../workers/solve';
import type { SolverApi } from '../../workers/solver';

/** Work that lasts longer than this, in milliseconds, is shown, and gives way to a newer question. */
const LONG = 250;

export class Solver {
  #worker: Worker | null = null;
  #remote: Remote<SolverApi> | null = null;
  #running: { readonly job: SolverJob; readonly since: number } | null = null;
  #waiting: SolverJob | null = null;
  /** The reading that the worker has: one that stays the same is not sent again with every question. */
  #sent: Analysis | null = null;
  #timer: ReturnType<typeof setTimeout> | undefined;

  /** The newest answer, with the question it answers. */
  latest: Solved | null = $state.raw(null);
  /** How much of a long job is done, 0 to 1; null where none is under way. */
  progress: number | null = $state(null);
  /** The player stopped the work; the last path stays until something is asked anew. */
  isStopped = $state(false);

  ask(job: SolverJob): void {
    this.isStopped = false;
    this.#waiting = job;
    if (!this.#running) this.#next();
    else if (performance.now() - this.#running.since > LONG) {
      this.#abandon();
      this.#next();
    }
  }

  /** Drops what it knows: another way of solving is in force. */
  forget(): void {
    this.#waiting = null;
    if (this.#running) this.#abandon();
    this.latest = null;
    this.isStopped = false;
  }

  /** Ends the work under way. */
  stop(): void {
    this.#waiting = null;
    this.#abandon();
    this.isStopped = true;
  }

  /** Lets the worker go with the page. */
  close(): void {
    this.#waiting = null;
    this.#abandon();
  }

  #abandon(): void {
    this.#worker?.terminate();
    this.#worker = null;
    this.#remote = null;
    this.#sent = null;
    this.#rest();
  }

  #rest(): void {
    clearTimeout(this.#timer);
    this.#running = null;
    this.progress = null;
  }

  #next(): void {
    const job = this.#waiting;
    if (!job) return;
    this.#waiting = null;
    // An address is no state.
    // eslint-disable-next-line svelte/prefer-svelte-reactivity
    this.#worker ??= new Worker(new URL('../../workers/solver.ts', import.meta.url), { type: 'module' });
    this.#remote ??= wrap<SolverApi>(this.#worker);
    const run = { job, since: performance.now() };
    this.#running = run;
    this.#timer = setTimeout(() => {
      // A newer question does not wait for long work on an older one.
      if (this.#waiting) {
        this.#abandon();
        this.#next();
      } else this.progress ??= 0;
    }, LONG);
    const tell = proxy((done: number) => {
      if (this.#running === run && this.progress !== null) this.progress = done;
    });
    const { analysis, ...question } = job;
    // Messages arrive in their order.
    if (analysis !== this.#sent) void this.#remote.take(analysis).catch(() => undefined);
    this.#sent = analysis;
    this.#remote
      .solve(question, tell)
      .then((result) => {
        if (this.#running !== run) return;
        this.#rest();
        // An answer to a question that has been overtaken is dropped.
        if (this.#waiting) this.#next();
        else this.latest = { job, result: unpackResult(result) };
      })
      .catch(() => {
        if (this.#running === run) this.stop();
      });
  }
}
