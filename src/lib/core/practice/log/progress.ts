/** How far items are: shut, open, in progress, held; read from the log. */
import type { LogRow, PracticeItem } from './model';
import { rowsByItem } from './model';
import { cleanTempo, heldTempo, nextTempo } from './tempo';

/** Shut items stand on others that are not held yet. */
export type ItemState = 'shut' | 'open' | 'in progress' | 'held';

export interface Progress {
  readonly state: ItemState;
  /** All that it stands on is held. */
  readonly isOpen: boolean;
  /** The highest tempo that is held: clean on two days. */
  readonly held: number | null;
  /** The highest tempo that was clean at all. */
  readonly clean: number | null;
  /** Beats a minute of the next round. */
  readonly next: number;
  readonly lastDay: string | null;
  /** Share of the latest marked rounds that were unclean. */
  readonly unclean: number;
  /** So many of them were unclean that it is a seam to mend. */
  readonly isSeam: boolean;
  readonly seconds: number;
}

/** Latest marked rounds that a seam is read from, how many of them have to be unclean, and which share. */
const LATEST = 6;
const SEAM = { rounds: 2, share: 0.5 };

/** Progress of every item on a day, by id. An item stands on those it names that there are; one that is gone holds nothing up. */
export function progressOf(
  items: readonly PracticeItem[],
  log: readonly LogRow[],
  day: string
): ReadonlyMap<string, Progress> {
  const rows = rowsByItem(log);
  const known = new Map(items.map((item) => [item.id, item]));
  const held = new Map(items.map(({ id }) => [id, heldTempo(rows.get(id) ?? [])]));
  return new Map(
    items.map((item) => {
      const waits = (item.after ?? []).some((id) => {
        const before = known.get(id);
        return before !== undefined && (held.get(id) ?? -1) < before.tempo.goal;
      });
      return [item.id, ownProgress(item, rows.get(item.id) ?? [], day, { waits, held: held.get(item.id)! })];
    })
  );
}

function ownProgress(
  { tempo }: PracticeItem,
  rows: readonly LogRow[],
  day: string,
  { waits, held }: { readonly waits: boolean; readonly held: number | null }
): Progress {
  const { share, count } = uncleanLately(rows);
  const isHeld = held !== null && held >= tempo.goal;
  const state = isHeld ? 'held' : waits ? 'shut' : rows.length > 0 ? 'in progress' : 'open';
  return {
    state,
    isOpen: !waits,
    held,
    clean: cleanTempo(rows),
    next: nextTempo(tempo, rows, day),
    lastDay: rows.at(-1)?.day ?? null,
    unclean: share,
    isSeam: count >= SEAM.rounds && share >= SEAM.share,
    seconds: rows.reduce((sum, { seconds }) => sum + seconds, 0)
  };
}

function uncleanLately(rows: readonly LogRow[]): { readonly share: number; readonly count: number } {
  let left = LATEST;
  let unclean = 0;
  for (let at = rows.length - 1; at >= 0 && left > 0; at--) {
    const { clean, rounds } = rows[at]!;
    if (clean === null) continue;
    const taken = Math.min(left, rounds);
    left -= taken;
    if (!clean) unclean += taken;
  }
  const seen = LATEST - left;
  return { share: seen ? unclean / seen : 0, count: unclean };
}
