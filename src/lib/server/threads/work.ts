/** A thread that does the work of routes: a job's name and what the request brought in, bytes out. */
import { sure } from '../../core/base/list';
import { parentPort, workerData } from 'node:worker_threads';
import { PlayerError } from '../../api/errors';
import { writeLetters, type Letters } from '../../core/theory/letters';
import { answers } from '../compute/answers';
import { copyOfDay } from '../store/copies';
import { checkPlace, closeFile, joinDatabase, type Database } from '../store/database';
import { songbookJobs } from './songbook-jobs';
import { readSettings } from '../store/settings';
import { fileProblem } from '../web/failure';
import { paramsOf, type Call, type Job } from './job';
import type { ThreadAnswer, ThreadHello, ThreadJob } from './pool';
import { ownNumber } from './thread-time';

/** What every thread is handed: where the songbook lies. */
export interface ThreadData {
  readonly songbook?: string;
}

/** A job as it is sent. */
export interface SentJob extends Pick<Call, 'query'> {
  readonly params: Readonly<Record<string, string>>;
  readonly name: string;
  /** Whether it changes the songbook, which is copied once before a day's first change. */
  readonly writes: boolean;
}

const { songbook: path } = workerData as ThreadData;
const jobs: Readonly<Record<string, Job>> = { ...answers, ...songbookJobs };

let opened: Promise<Database> | undefined;
/** Opened once; where that failed it is tried again by the next job. */
const songbook = () =>
  (opened ??= joinDatabase(path!).catch((thrown: unknown) => {
    opened = undefined;
    throw thrown;
  }));

/** What is told to the player is in the player's letters; what is stored, and what the routes compute, in the international ones. */
async function lettersFor(name: string, writes: boolean): Promise<Letters> {
  if (writes || name === 'start' || name === 'summaries' || !Object.hasOwn(songbookJobs, name)) return 'b';
  return readSettings(await songbook()).then(
    ({ letters }) => letters,
    () => 'b'
  );
}

async function answerTo({ text, bytes = new Uint8Array() }: ThreadJob): Promise<ThreadAnswer> {
  try {
    const { name, writes, params, query } = JSON.parse(text) as SentJob;
    // A disk that is full is told at the change itself.
    if (writes) {
      checkPlace(await songbook());
      await copyOfDay(await songbook(), new Date()).catch(console.error);
    }
    writeLetters(await lettersFor(name, writes));
    const answer = await sure(jobs[name], 'jobs')({ params: paramsOf(params), query, bytes }, songbook);
    // What was moved meanwhile took the change along.
    if (writes) checkPlace(await songbook());
    const body = typeof answer.body === 'string' ? new TextEncoder().encode(answer.body) : answer.body;
    const { type, name: file } = answer;
    return { kind: 'done', bytes: body, type, ...(file === undefined ? {} : { name: file }) };
  } catch (thrown) {
    const told = thrown instanceof PlayerError ? thrown : fileProblem(thrown);
    if (told) return { kind: 'refused', status: told.status, error: told.error, extra: told.extra };
    return {
      kind: 'failed',
      message: thrown instanceof Error ? (thrown.stack ?? thrown.message) : String(thrown)
    };
  }
}

async function close(): Promise<void> {
  // What could not be opened has nothing to close; the program is leaving.
  const db = await opened?.catch(() => undefined);
  if (db) closeFile(db);
  process.exit(0);
}

const port = parentPort!;
port.on('message', (message: ThreadJob | 'close') => {
  if (message === 'close') return void close();
  void answerTo(message).then((answer) => {
    port.postMessage(answer, answer.kind === 'done' ? [answer.bytes.buffer] : []);
  });
});
const number = ownNumber();
port.postMessage({
  kind: 'hello',
  ...(number === undefined ? {} : { thread: number })
} satisfies ThreadHello);
