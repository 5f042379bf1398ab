/** Processor time of single threads, where the system tells it (Linux). */
import { readFileSync, readlinkSync } from 'node:fs';

/** The system's number of the thread that asks; undefined where it is not told. */
export function ownNumber(): number | undefined {
  try {
    const number = Number(readlinkSync('/proc/thread-self').split('/').at(-1));
    return Number.isInteger(number) ? number : undefined;
  } catch {
    return undefined;
  }
}

/** Milliseconds that a thread of this program has spent on a processor; null where that is not told. */
export function threadTime(number: number | undefined): number | null {
  if (number === undefined) return null;
  try {
    const [nanoseconds] = readFileSync(`/proc/self/task/${number}/schedstat`, 'latin1').split(' ');
    const time = Number(nanoseconds) / 1e6;
    return Number.isFinite(time) ? time : null;
  } catch {
    return null;
  }
}
