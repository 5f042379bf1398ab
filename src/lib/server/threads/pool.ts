/**
 * Threads for everything that takes longer than a moment, so that no request waits for another one's work. Threads stand in lanes: light
 * work, writing, heavy work. A job has a budget of processor time, and ends with the client that asked for it unless it writes.
 */
import { sure } from '../../core/base/list';
import { cpus, setPriority } from 'node:os';
import { Worker } from 'node:worker_threads';
import { PlayerError, type ApiError } from '../../api/errors';
import { threadTime } from './thread-time';

/** What a thread is sent: a job as JSON text, and bytes that go along as they are. */
export interface ThreadJob {
  readonly text: string;
  readonly bytes?: Uint8Array<ArrayBuffer>;
}

/** What a thread answers: bytes with their type, or an error to be told. */
export type ThreadAnswer =
  | {
      readonly kind: 'done';
      readonly bytes: Uint8Array<ArrayBuffer>;
      readonly type: string;
      readonly name?: string;
      /** Of a thread that draws pages: status and headers. */
      readonly head?: { readonly status: number; readonly headers: readonly (readonly [string, string])[] };
    }
  | {
      readonly kind: 'refused';
      readonly status: PlayerError['status'];
      readonly error: ApiError;
      readonly extra?: Record<string, unknown>;
    }
  | { readonly kind: 'failed'; readonly message: string };

/** What a thread says of its own accord. */
export interface ThreadHello {
  readonly kind: 'hello';
  /** The system's number of the thread, by which its processor time is known; absent where the system does not tell. */
  readonly thread?: number;
}

export type Done = Extract<ThreadAnswer, { kind: 'done' }>;

/**
 * Light: short computations and reading. Write: short changes, one after another, as the file takes them. Bulk: long work on the
 * songbook. Heavy: computations that may take their time.
 */
export type LaneName = 'light' | 'write' | 'bulk' | 'heavy';
const LANES: readonly LaneName[] = ['light', 'write', 'bulk', 'heavy'];

export interface PoolBounds {
  /** Milliseconds of processor time that one job may take. */
  readonly budget: number;
  /** Milliseconds by the clock after which a job that was starved of its processor is given up. */
  readonly patience: number;
  /** Threads at most, by lane. */
  readonly most: Readonly<Record<LaneName, number>>;
  /** A light job that has worked for longer than this, in milliseconds, goes on among the heavy ones, and its place is free for others. */
  readonly long: number;
  /** Jobs that went on among the heavy ones beyond the threads of that lane. */
  readonly guests: number;
  /** Jobs that may wait, in each lane. */
  readonly queue: number;
}

export const BOUNDS: PoolBounds = {
  budget: 15_000,
  patience: 120_000,
  most: { light: 2, write: 1, bulk: 2, heavy: Math.max(2, Math.min(4, cpus().length)) },
  long: 120,
  guests: 6,
  queue: 200
};

/** Threads that stay when there is nothing to do. */
const KEPT: Readonly<Record<LaneName, number>> = { light: 2, write: 1, bulk: 2, heavy: 2 };
/** How much threads stand back behind the program's own where the processors are scarce, as the system counts it. */
const NICE: Readonly<Record<LaneName, number>> = { light: 0, write: 0, bulk: 3, heavy: 5 };
/** Milliseconds that threads are given to close what they hold. */
const CLOSING = 2000;

export interface Order {
  readonly lane: LaneName;
  readonly job: unknown;
  readonly bytes?: Uint8Array<ArrayBuffer> | undefined;
  /** What to ask for instead where it takes too long; absent for a job that is never cut short, since it writes. */
  readonly tooLong?: string | undefined;
  readonly signal?: AbortSignal | undefined;
}

interface Job extends ThreadJob {
  readonly settle: (answer: ThreadAnswer | 'too long' | 'starved' | 'gone') => void;
  readonly isBounded: boolean;
  isGone: boolean;
}

interface Thread {
  readonly worker: Worker;
  lane: LaneName;
  job: Job | null;
  /** When its job began, by the clock and in its own processor time. */
  since: number;
  used: number;
  number: number | undefined;
  /** Whether it has come up; until then its job has not begun. */
  isUp: boolean;
  timer: ReturnType<typeof setTimeout> | undefined;
}

export class Pool {
  readonly #threads = new Set<Thread>();
  readonly #waiting: Record<LaneName, Job[]> = { light: [], write: [], bulk: [], heavy: [] };
  #look: ReturnType<typeof setTimeout> | undefined;
  #isClosed = false;

  /**
   * `source`: the code of a thread, which answers each message, a `ThreadJob`, with a ThreadAnswer, and "close" by leaving. `data` is
   * handed to every thread.
   */
  constructor(
    readonly source: string,
    readonly bounds: PoolBounds = BOUNDS,
    readonly data: object = {}
  ) {}

  /** Does a job. Rejects with a PlayerError where it is refused, takes too long or fails. */
  run({ lane, job, bytes, tooLong, signal }: Order): Promise<Done> {
    if (this.#isClosed) return Promise.reject(busy('Corvel is stopping; try again when it is back.'));
    if (this.#waiting[lane].length >= this.bounds.queue) {
      return Promise.reject(busy('Corvel is busy with other requests; try again in a moment.'));
    }
    const isBounded = tooLong !== undefined;
    return new Promise((resolve, reject) => {
      const leave = () => this.#abandon(entry);
      const entry: Job = {
        text: JSON.stringify(job),
        ...(bytes ? { bytes } : {}),
        isBounded,
        isGone: false,
        settle: (answer) => {
          signal?.removeEventListener('abort', leave);
          if (answer === 'gone') reject(new PlayerError(503, { code: 'gone', message: 'The client left.' }));
          else if (answer === 'starved')
            reject(busy('Corvel is too busy to finish this now; try again in a moment.'));
          else if (answer === 'too long')
            reject(new PlayerError(413, { code: 'too-much-work', message: tooLong ?? '' }));
          else if (answer.kind === 'done') resolve(answer);
          else if (answer.kind === 'refused')
            reject(new PlayerError(answer.status, answer.error, answer.extra));
          else reject(new Error(answer.message));
        }
      };
      if (isBounded) {
        if (signal?.aborted) return entry.settle('gone');
        signal?.addEventListener('abort', leave, { once: true });
      }
      this.#waiting[lane].push(entry);
      this.#next();
    });
  }

  /** Opens a thread in each of some lanes, so that the first request finds one; others open as they are needed. */
  warm(...lanes: readonly LaneName[]): void {
    for (const lane of lanes) if (this.#of(lane).length === 0) this.#open(lane).worker.unref();
  }

  /** Lets every thread close what it holds, then ends all of them. */
  async close(): Promise<void> {
    this.#isClosed = true;
    clearTimeout(this.#look);
    const threads = [...this.#threads];
    this.#threads.clear();
    await Promise.all(
      threads.map(async ({ worker, timer, job }) => {
        clearTimeout(timer);
        if (!job || !job.isBounded) {
          const left = new Promise((leave) => worker.once('exit', leave));
          const patience = new Promise((leave) => setTimeout(leave, CLOSING).unref());
          worker.postMessage('close');
          await Promise.race([left, patience]);
        }
        await worker.terminate();
      })
    );
  }

  #of(lane: LaneName): Thread[] {
    return [...this.#threads].filter((thread) => thread.lane === lane);
  }

  #abandon(job: Job): void {
    job.isGone = true;
    job.settle('gone');
    for (const thread of this.#threads) if (thread.job === job) this.#end(thread);
    this.#next();
  }

  #next(): void {
    clearTimeout(this.#look);
    for (const lane of LANES) this.#nextOf(lane);
    if (this.#waiting.light.length > 0 && Number.isFinite(this.bounds.long))
      this.#look = setTimeout(() => this.#next(), this.bounds.long);
  }

  #nextOf(lane: LaneName): void {
    const waiting = this.#waiting[lane];
    for (;;) {
      while (waiting[0]?.isGone) waiting.shift();
      if (waiting.length === 0) return;
      if (lane === 'light') this.#makeRoom();
      const threads = this.#of(lane);
      const idle = threads.find(({ job }) => job === null);
      const thread = idle ?? (threads.length < this.bounds.most[lane] ? this.#open(lane) : null);
      if (!thread) return;
      this.#begin(thread, sure(waiting.shift(), 'waiting'));
    }
  }

  /** Light jobs that turn out not to be light make room for those that wait. */
  #makeRoom(): void {
    for (const thread of this.#of('light')) {
      if (!thread.job || this.#worked(thread) < this.bounds.long) continue;
      if (this.#of('heavy').length >= this.bounds.most.heavy + this.bounds.guests) return;
      this.#toHeavy(thread);
    }
  }

  /** Milliseconds that a thread has worked on its job: on a processor, or by the clock where that is not told. */
  #worked(thread: Thread): number {
    if (!thread.isUp) return 0;
    const time = threadTime(thread.number);
    return time === null ? Date.now() - thread.since : time - thread.used;
  }

  #toHeavy(thread: Thread): void {
    thread.lane = 'heavy';
    standBack(thread);
  }

  #begin(thread: Thread, job: Job): void {
    thread.job = job;
    thread.since = Date.now();
    thread.used = threadTime(thread.number) ?? 0;
    thread.worker.ref();
    if (job.isBounded) this.#watch(thread, job, this.bounds.budget);
    const { text, bytes } = job;
    const message: ThreadJob = { text, ...(bytes ? { bytes } : {}) };
    thread.worker.postMessage(message, bytes ? [bytes.buffer] : []);
  }

  /** Looks after some milliseconds whether a job has used up its budget: what counts is its own time on a processor. */
  #watch(thread: Thread, job: Job, after: number): void {
    thread.timer = setTimeout(() => {
      const elapsed = Date.now() - thread.since;
      const left = this.bounds.budget - this.#worked(thread);
      if (left > 0 && elapsed < this.bounds.patience) return this.#watch(thread, job, Math.max(50, left));
      this.#end(thread);
      job.settle(left > 0 ? 'starved' : 'too long');
      this.#next();
    }, after);
  }

  #open(lane: LaneName): Thread {
    const worker = new Worker(this.source, { eval: true, workerData: this.data });
    const thread: Thread = {
      worker,
      lane,
      job: null,
      since: 0,
      used: 0,
      number: undefined,
      isUp: false,
      timer: undefined
    };
    this.#threads.add(thread);
    worker.on('message', (message: ThreadAnswer | ThreadHello) => {
      if (message.kind !== 'hello') return this.#finish(thread, message);
      thread.number = message.thread;
      thread.isUp = true;
      thread.since = Date.now();
      thread.used = threadTime(thread.number) ?? 0;
      standBack(thread);
    });
    // What a thread throws is told with the job it was about; it never reaches the program as a whole.
    worker.on('error', (error) => this.#lose(thread, error.message));
    worker.on('messageerror', (error) => this.#lose(thread, error.message));
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
    this.#next();
    // A guest leaves when it is done, and threads beyond those that are kept do when nothing waits.
    const own = this.#of(thread.lane);
    const idle = own.filter((other) => other.job === null);
    const isBeyond = own.length > this.bounds.most[thread.lane] || idle.length > KEPT[thread.lane];
    if (thread.job === null && isBeyond) this.#end(thread);
  }

  #end(thread: Thread): void {
    clearTimeout(thread.timer);
    this.#threads.delete(thread);
    void thread.worker.terminate();
  }
}

const busy = (message: string) => new PlayerError(503, { code: 'busy', message });

/** Only Linux gives a thread a rank of its own; elsewhere all are of one. */
function standBack({ number, lane }: Thread): void {
  if (number === undefined || NICE[lane] === 0) return;
  try {
    setPriority(number, NICE[lane]);
  } catch {
    // It has ended meanwhile.
  }
}
