/** A line that is being written and not kept yet: it survives leaving and reloading, on this device. */
import { z } from 'zod';
import { lineData } from '$lib/api/line';
import type { LineNote } from '$lib/core/line/model';
import { thisWindow } from '../windows';

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

const PLACE = 'corvel-line:';
const startOf = (chart: string) => `${PLACE}${chart}:`;
/** Each window keeps its own, so that two of them never write over one another. */
const placeIn = (chart: string, window: string) => startOf(chart) + window;

/** Keeps what is being written over a chart in this window; null where there is nothing left to be kept. */
export function keepDraft(chart: string, line: LineDraft | null, window = thisWindow): void {
  try {
    const place = placeIn(chart, window);
    if (!line || line.notes.length === 0) localStorage.removeItem(place);
    else localStorage.setItem(place, JSON.stringify({ name: line.name, id: line.id, notes: line.notes }));
  } catch {
    // A browser that keeps nothing has no drafts.
  }
}

/** Milliseconds after the last edit until it is put on the device; leaving the page puts it there at once. */
const SOON = 250;
let waiting: { readonly write: () => void; readonly timer: ReturnType<typeof setTimeout> } | null = null;

/** Puts on the device what waits for it. */
export function flushDraft(): void {
  if (!waiting) return;
  clearTimeout(waiting.timer);
  const { write } = waiting;
  waiting = null;
  write();
}

/** Keeps what is being written when the hand rests: a long line takes longer to put away than a fret to be written. */
export function keepDraftSoon(chart: string, line: LineDraft | null): void {
  if (waiting) clearTimeout(waiting.timer);
  waiting = { write: () => keepDraft(chart, line), timer: setTimeout(flushDraft, SOON) };
}
globalThis.addEventListener?.('pagehide', flushDraft);

function read(place: string): LineDraft | null {
  try {
    return draft.parse(JSON.parse(localStorage.getItem(place) ?? '')) as LineDraft;
  } catch {
    return null;
  }
}

/** What is being written over a chart in this window; null where there is nothing, or it cannot be read. */
export const draftOf = (chart: string, window = thisWindow): LineDraft | null => read(placeIn(chart, window));

/**
 * Takes up what a window that is gone was writing over a chart, as this window's own; null where nothing was left. `open`: the windows that
 * are there, which look after theirs. What older versions kept without a window is taken up too.
 */
export function takeUpDraft(chart: string, open: ReadonlySet<string>, window = thisWindow): LineDraft | null {
  const own = draftOf(chart, window);
  if (own) return own;
  const start = startOf(chart);
  const places = storedPlaces().filter(
    (place) =>
      place === `${PLACE}${chart}` || (place.startsWith(start) && !open.has(place.slice(start.length)))
  );
  for (const place of places) {
    const left = read(place);
    if (!left) continue;
    keepDraft(chart, left, window);
    localStorage.removeItem(place);
    return left;
  }
  return null;
}

function storedPlaces(): string[] {
  try {
    return Array.from({ length: localStorage.length }, (_, i) => localStorage.key(i) ?? '').sort();
  } catch {
    return [];
  }
}
