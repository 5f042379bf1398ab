/**
 * Threads for what takes long to compute, so that no request waits for another one's work. A job has a budget of time,
 * and ends with the client that asked for it.
 */
import { cpus } from 'node:os';
import { Worker } from 'node:worker_threads';
import { PlayerError, type ApiError } from '../../api/errors';

/** What a thread is sent: a job as JSON text, and bytes that go along as they are. */
export interface ThreadJob {
  readonly text: string;
  readonly bytes?: Uint8Array<ArrayBuffer>;
}

/** What a thread answers: JSON text, or an error to be told. */
export type ThreadAnswer =
  | { readonly kind: 'done'; readonly text: string }
  | { readonly kind: 'refused'; readonly status: PlayerError['status']; readonly error: ApiError }
  | { readonly kind: 'failed'; readonly message: string };

export interface PoolBounds {
  /** Milliseconds that one job may take. */
  readonly budget: number;
  /** Threads at most. */
  readonly most: number;
  /** A job older than this, in milliseconds, no longer keeps others waiting: another thread is opened beside it. */
  readonly long: number;
  /** Jobs that may wait. */
  readonly queue: number;
}

export const BOUNDS: PoolBounds = { budget: 15_000, most: 8, long: 250, queue: 200 };
/** Threads that stay when there is nothing to do. */
const KEPT = 2;

interface Job extends ThreadJob {
  readonly settle: (answer: ThreadAnswer | 'too long' | 'gone') => void;
  isGone: boolean;
}

interface Thread {
  readonly worker: Worker;
  job: Job | null;
  since: number;
  timer: ReturnType<typeof setTimeout> | undefined;
}

export class Pool {
  readonly #threads = new Set<Thread>();
  readonly #waiting: Job[] = [];
  #look: ReturnType<typeof setTimeout> | undefined;

  /** `source`: the code of a thread, which answers each message, a `ThreadJob`, with a ThreadAnswer. */
  constructor(
    readonly source: string,
    readonly bounds: PoolBounds = BOUNDS
  ) {}

  /** Does a job; the answer is JSON text. Rejects with a PlayerError where it is refused, takes too long or fails. */
  run(job: unknown, tooLong: string, signal?: AbortSignal, bytes?: Uint8Array<ArrayBuffer>): Promise<string> {
    if (this.#waiting.length >= this.bounds.queue) {
      const message = 'Corvel is busy with other requests; try again in a moment.';
      return Promise.reject(new PlayerError(503, { code: 'busy', message }));
    }
    return new Promise((resolve, reject) => {
      const leave = () => this.#abandon(entry);
      const entry: Job = {
        text: JSON.stringify(job),
        ...(bytes ? { bytes } : {}),
        isGone: false,
        settle: (answer) => {
          signal?.removeEventListener('abort', leave);
          if (answer === 'gone') reject(new PlayerError(503, { code: 'gone', message: 'The client left.' }));
          else if (answer === 'too long')
            reject(new PlayerError(413, { code: 'too-much-work', message: tooLong }));
          else if (answer.kind === 'done') resolve(answer.text);
          else if (answer.kind === 'refused') reject(new PlayerError(answer.status, answer.error));
          else reject(new Error(answer.message));
        }
      };
      signal?.addEventListener('abort', leave, { once: true });
      this.#waiting.push(entry);
      this.#next();
    });
  }

  /** Opens the threads that are kept, so that the first requests find them. */
  warm(): void {
    while (this.#threads.size < KEPT) this.#open().worker.unref();
  }

  close(): void {
    clearTimeout(this.#look);
    for (const thread of this.#threads) this.#end(thread);
  }

  #abandon(job: Job): void {
    job.isGone = true;
    job.settle('gone');
    for (const thread of this.#threads) if (thread.job === job) this.#end(thread);
    this.#next();
  }

  #next(): void {
    clearTimeout(this.#look);
    while (this.#waiting[0]?.isGone) this.#waiting.shift();
    if (this.#waiting.length === 0) return;
    const threads = [...this.#threads];
    const idle = threads.find(({ job }) => job === null);
    const now = Date.now();
    const young = threads.filter(({ since, job }) => job && now - since < this.bounds.long);
    const mayOpen = threads.length < this.bounds.most && young.length < Math.max(1, cpus().length);
    const thread = idle ?? (mayOpen ? this.#open() : null);
    if (thread) {
      this.#begin(thread, this.#waiting.shift()!);
      this.#next();
    } else if (young.length > 0) {
      this.#look = setTimeout(() => this.#next(), this.bounds.long);
    }
  }

  #begin(thread: Thread, job: Job): void {
    thread.job = job;
    thread.since = Date.now();
    thread.worker.ref();
    thread.timer = setTimeout(() => {
      this.#end(thread);
      job.settle('too long');
      this.#next();
    }, this.bounds.budget);
    const { text, bytes } = job;
    const message: ThreadJob = { text, ...(bytes ? { bytes } : {}) };
    thread.worker.postMessage(message, bytes ? [bytes.buffer] : []);
  }

  #open(): Thread {
    const worker = new Worker(this.source, { eval: true });
    const thread: Thread = { worker, job: null, since: 0, timer: undefined };
    this.#threads.add(thread);
    worker.on('message', (answer: ThreadAnswer) => this.#finish(thread, answer));
    worker.on('error', (error) => this.#lose(thread, error.message));
    worker.on('exit', (code) => this.#lose(thread, `A thread ended with ${code}.`));
    return thread;
  }

  /** A thread that has ended by itself answers its job no more. */
  #lose(thread: Thread, message: string): void {
    if (!this.#threads.has(thread)) return;
    const { job } = thread;
    this.#end(thread);
    if (job && !job.isGone) job.settle({ kind: 'failed', message });
    this.#next();
  }

  #finish(thread: Thread, answer: ThreadAnswer): void {
    const { job } = thread;
    clearTimeout(thread.timer);
    thread.job = null;
    thread.worker.unref();
    if (job && !job.isGone) job.settle(answer);
    const idle = [...this.#threads].filter((other) => other.job === null);
    if (idle.length > KEPT && this.#waiting.length === 0) this.#end(thread);
    this.#next();
  }

  #end(thread: Thread): void {
    clearTimeout(thread.timer);
    this.#threads.delete(thread);
    void thread.worker.terminate();
  }
}
