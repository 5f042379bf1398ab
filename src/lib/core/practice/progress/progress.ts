/** How far items are: shut, open, in progress, held; read from the log. */
import type { Seconds } from '../../base/units';
import { dayAfter } from '../log/day';
import type { LogRow, PracticeItem } from '../log/model';
import { askedOn, settled, standingsOf, type Standing } from './fold';
import { baseOf } from './runs';
import { isFlat, isResting, LEAST_MINUTES, seamsIn, wholeTempo } from './turn';

/** Shut items stand on others that were not clean at 85 % of their goal yet. */
export type ItemState = 'shut' | 'open' | 'in progress' | 'held';

/** What the plan of a day has to know of an item. */
export interface Standpoint {
  readonly state: ItemState;
  /** All that it stands on was clean at 85 % of its goal, or rests. */
  readonly isOpen: boolean;
  /** The day it opened on; null where it stands on nothing, or is shut. */
  readonly openSince: string | null;
  /** The fastest clean run, and the highest tempo that was clean on two days. */
  readonly clean: number | null;
  readonly held: number | null;
  readonly lastDay: string | null;
  /** The day on which something that is held is asked again. */
  readonly askOn: string | null;
  /** Nothing has become better for six days played; for twelve: it rests. */
  readonly isFlat: boolean;
  readonly isResting: boolean;
}

/** The same with all that a player is told. */
export interface Progress extends Standpoint {
  /** Beats a minute of the next loop. */
  readonly next: number;
  /** What was clean lately, from which the next day begins; null before anything was. */
  readonly base: number | null;
  /** Bars where it goes wrong again and again. */
  readonly seams: readonly number[];
  readonly seconds: Seconds;
}

/** Progress of every item on a day, by id. An item stands on those it names that there are; one that is gone holds nothing up. */
export function progressOf(
  items: readonly PracticeItem[],
  log: readonly LogRow[],
  day: string
): ReadonlyMap<string, Progress> {
  return progressIn(standingsOf(items, log), day);
}

/** How far each item is, from all that the log has of it. */
export function progressIn(
  standings: ReadonlyMap<string, Standing>,
  day: string
): ReadonlyMap<string, Progress> {
  return new Map(
    [...standings].map(([id, standing]) => {
      const { item, whole, seconds } = standing;
      return [
        id,
        {
          ...standpointOf(standing, standings, day),
          next: wholeTempo(standing, day, 60 * (item.minutes ?? LEAST_MINUTES)),
          base: baseOf(whole, item.tempo.step),
          seams: seamsIn(standing).map(({ bar }) => bar),
          seconds
        }
      ];
    })
  );
}

/** Where every item stands on a day, by id. */
export function standpointsIn(
  standings: ReadonlyMap<string, Standing>,
  day: string
): ReadonlyMap<string, Standpoint> {
  const found = new Map<string, Standpoint>();
  for (const [id, standing] of standings) found.set(id, standpointOf(standing, standings, day));
  return found;
}

function standpointOf(standing: Standing, standings: ReadonlyMap<string, Standing>, day: string): Standpoint {
  const { item, lastDay } = standing;
  let openSince: string | null = null;
  let waits = false;
  for (const id of item.after ?? []) {
    const before = standings.get(id);
    if (!before) continue;
    const since = opensOn(before, day);
    if (since === null) waits = true;
    else if (openSince === null || since > openSince) openSince = since;
  }
  const now = settled(standing);
  const { held, best, second } = now;
  return {
    state: held.isHeld ? 'held' : waits ? 'shut' : lastDay !== null ? 'in progress' : 'open',
    isOpen: !waits,
    openSince: waits ? null : openSince,
    clean: best,
    held: second,
    lastDay,
    askOn: held.isHeld ? askedOn(held) : null,
    isFlat: isFlat(standing, now),
    isResting: isResting(standing, day, now)
  };
}

/** The day on which what stands on an item opens; null where it is not that far. One that rests blocks nothing. */
function opensOn(standing: Standing, day: string): string | null {
  const { opensSince, lastDay } = standing;
  if (opensSince !== null) return opensSince;
  if (isResting(standing, day)) return lastDay;
  // Marked as held by older entries, at a goal that has been raised since.
  return settled(standing).held.isHeld ? dayAfter(day, -1) : null;
}
