/** The jobs of the songbook done where they are asked for, in a thread that draws pages. */
import { joinDatabase, type Database } from '../store/database';
import { songbookPath } from '../store/database-path';
import { songbookJobs, type KeptName } from '../threads/songbook-jobs';
import { paramsOf, type Call, type Job } from '../threads/job';

let opened: Promise<Database> | undefined;

/** What a job that reads gives. Throws a PlayerError. */
export async function askHere<T>(
  name: KeptName,
  { params, query }: Omit<Call, 'params' | 'bytes'> & { readonly params: Readonly<Record<string, string>> }
): Promise<T> {
  const job: Job = songbookJobs[name];
  // Where it could not be opened it is tried again by the next page.
  const songbook = () =>
    (opened ??= joinDatabase(songbookPath()).catch((thrown: unknown) => {
      opened = undefined;
      throw thrown;
    }));
  const { body } = await job({ params: paramsOf(params), query, bytes: new Uint8Array() }, songbook);
  return JSON.parse(String(body)) as T;
}
