/** A line that is being written and not kept yet: it survives leaving and reloading, on this device. */
import { z } from 'zod';
import { lineData } from '$lib/api/line';
import type { LineNote } from '$lib/core/line/model';

const draft = z.object({
  name: z.string().max(120),
  id: z.string().max(60).nullable(),
  notes: lineData.shape.notes
});
export interface LineDraft {
  readonly name: string;
  /** The kept line that is being written on; null for a new one. */
  readonly id: string | null;
  readonly notes: readonly LineNote[];
}

const key = (chart: string) => `corvel-line:${chart}`;

/** Keeps what is being written over a chart; null where there is nothing left to be kept. */
export function keepDraft(chart: string, line: LineDraft | null): void {
  try {
    if (!line || line.notes.length === 0) localStorage.removeItem(key(chart));
    else
      localStorage.setItem(key(chart), JSON.stringify({ name: line.name, id: line.id, notes: line.notes }));
  } catch {
    // A browser that keeps nothing has no drafts.
  }
}

/** What was being written over a chart; null where there is none, or it cannot be read. */
export function draftOf(chart: string): LineDraft | null {
  try {
    return draft.parse(JSON.parse(localStorage.getItem(key(chart)) ?? '')) as LineDraft;
  } catch {
    return null;
  }
}
