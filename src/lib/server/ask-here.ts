/** The jobs of the songbook done where they are asked for, in a thread that draws pages. */
import { joinDatabase, type Database } from './database';
import { songbookPath } from './database-path';
import { keptJobs, type KeptName } from './kept-jobs';
import type { Call, Job } from './threads/job';

let opened: Promise<Database> | undefined;

/** What a job that reads gives. Throws a PlayerError. */
export async function askHere<T>(name: KeptName, parts: Omit<Call, 'bytes'>): Promise<T> {
  const job: Job = keptJobs[name];
  // Where it could not be opened it is tried again by the next page.
  const songbook = () =>
    (opened ??= joinDatabase(songbookPath()).catch((thrown: unknown) => {
      opened = undefined;
      throw thrown;
    }));
  const { body } = await job({ ...parts, bytes: new Uint8Array() }, songbook);
  return JSON.parse(String(body)) as T;
}
