/**
 * A lick as something to be practised everywhere: as it was kept, in each of the five areas of its key, then round the keys in
 * fourths, each in every area. What is known here and not there is what comes next.
 */
import { entryOf } from '../../base/list';
import { keyText } from '../../harmony/key';
import { lickElsewhere } from '../../line/lick-elsewhere';
import { homeOfLick, type KeptLick } from '../../line/lick-facts';
import type { Instrument } from '../../neck/tuning';
import type { ItemTempo } from '../log/model';
import type { Progress } from '../progress/progress';

/** Where a lick is played: semitones up from where it was kept, and an area of that key; null as it was kept. */
export interface LickPlace {
  readonly shift: number;
  readonly area: number | null;
}

export interface LickItem extends LickPlace {
  readonly id: string;
  readonly name: string;
  readonly key: string;
  /** "E form"; null as it was kept. */
  readonly areaName: string | null;
  readonly after: readonly string[];
}

const FOURTH = 5;
const KEYS = 12;
/** Nothing in a lick says how fast it is: a middling tempo to begin with, which the player may change. */
export const LICK_TEMPO: ItemTempo = { start: 72, goal: 120 };
const PREFIX = 'lick';

/** The id of a lick as an exercise in one key and area. */
export const lickItemId = (lick: string, { shift, area }: LickPlace): string =>
  [PREFIX, lick, shift, area ?? 'kept'].join(':');

/** The lick and place that an item is of; null for another item. */
export function lickPlaceOf(item: string): (LickPlace & { readonly lick: string }) | null {
  const [prefix, lick, shift, area] = item.split(':');
  if (prefix !== PREFIX || !lick || shift === undefined || area === undefined) return null;
  const place = { shift: Number(shift), area: area === 'kept' ? null : Number(area) };
  const isThere = place.shift >= 0 && place.shift < KEYS && (place.area === null || place.area >= 0);
  return isThere ? { lick, ...place } : null;
}

/** Keys in the order in which they are taken up, in semitones from the first. */
export const LICK_KEYS = Array.from({ length: KEYS }, (_, fourths) => (fourths * FOURTH) % KEYS);

/** Every place that a lick lies in, in the order in which it is learnt there. */
export function lickItems(
  lick: { readonly id: string; readonly name: string; readonly data: KeptLick },
  neck: Instrument
): readonly LickItem[] {
  const { id, name, data } = lick;
  const items: LickItem[] = [];
  const known = new Set<string>();
  const areas = lickElsewhere(data, { shift: 0, area: null }, neck)?.areas ?? 5;
  const places = [null, ...Array.from({ length: areas }, (_, i) => i)];
  LICK_KEYS.forEach((shift, turn) => {
    for (const area of places) {
      const there =
        shift === 0 && area === null
          ? { key: homeOfLick(data), areaName: null }
          : lickElsewhere(data, { shift, area }, neck);
      if (!there) continue;
      // The key before in the same form, and this key as it lies along the strings.
      const before = items.find(
        (one) => one.shift === LICK_KEYS[turn - 1] && one.areaName === there.areaName
      );
      const here = area === null ? [] : [lickItemId(id, { shift, area: null })];
      const own = lickItemId(id, { shift, area });
      known.add(own);
      items.push({
        id: own,
        shift,
        area,
        key: keyText(there.key),
        areaName: there.areaName,
        name: there.areaName ? `${name}, ${there.areaName}` : name,
        after: [...(before ? [before.id] : []), ...here].filter((one) => known.has(one))
      });
    }
  });
  return items;
}

/** What comes next of a lick: the first open place where it is not known at all, else the first where it is not held. */
export function nextPlace(
  items: readonly LickItem[],
  progress: ReadonlyMap<string, Pick<Progress, 'state' | 'isOpen' | 'clean'>>
): LickItem | null {
  const open = items.filter(({ id }) => progress.get(id)?.isOpen);
  const of = ({ id }: LickItem) => entryOf(progress, id);
  return (
    open.find((item) => of(item).clean === null) ?? open.find((item) => of(item).state !== 'held') ?? null
  );
}
