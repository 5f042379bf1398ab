/** The player's own recordings, one a chart, kept on this machine and nowhere else. */
import { del, get, set } from 'idb-keyval';
import type { BeatGrid } from '$lib/core/practice/beats';

export interface StoredRecording {
  readonly name: string;
  readonly file: Blob;
  readonly grid: BeatGrid;
}

const place = (chart: string) => `corvel-recording-${chart}`;

/** Null where there is none, or the browser keeps nothing. */
export async function storedRecording(chart: string): Promise<StoredRecording | null> {
  try {
    return (await get<StoredRecording>(place(chart))) ?? null;
  } catch {
    return null;
  }
}

/** False where the browser keeps nothing: it plays until the page is left. */
export async function keepRecording(chart: string, recording: StoredRecording | null): Promise<boolean> {
  try {
    await (recording ? set(place(chart), recording) : del(place(chart)));
    return true;
  } catch {
    return false;
  }
}
