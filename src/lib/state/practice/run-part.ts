/** The parts of a session as they are run: what each is called, what it opens, where it is played. */
import type { ItemData, ItemWithProgress } from '$lib/api/practice';
import { lickPlaceOf } from '$lib/core/practice/items/lick-items';
import { keyName, loopName } from '$lib/core/practice/items/words';
import { PARTS, type SessionPart } from '$lib/core/practice/session/parts';
import type { Assignment } from './assignment';

/** A part as it is run: with what it opens. */
export interface RunPart extends SessionPart {
  readonly id: string;
  readonly name: string;
  /** Title of the chart. */
  readonly title: string | null;
  readonly data: ItemData | null;
  readonly isDone?: boolean;
}

/** The parts of a plan with what each opens. */
export function runParts(
  parts: readonly SessionPart[],
  items: readonly ItemWithProgress[],
  titles: ReadonlyMap<string, string>,
  tunings: ReadonlyMap<string, string> = NO_TUNINGS
): RunPart[] {
  return parts.map((part, i) => {
    const item = items.find(({ id }) => id === part.item);
    return {
      ...part,
      id: `${i} ${part.kind} ${part.item ?? ''} ${part.bars?.from ?? ''}`,
      ...namesOf(part, item?.data?.name, titles, tunings),
      data: item?.data ?? null
    };
  });
}

const NO_TUNINGS: ReadonlyMap<string, string> = new Map();

/** What a part is called, and the title of its chart; with the tuning that a form wants on the day. */
function namesOf(
  { chart, kind, bars }: SessionPart,
  own: string | undefined,
  titles: ReadonlyMap<string, string>,
  tunings: ReadonlyMap<string, string>
): { readonly name: string; readonly title: string | null } {
  const title = (chart === undefined ? undefined : titles.get(chart)) ?? null;
  if (kind === 'form' && title !== null) {
    const tuning = tunings.get(chart!);
    return { name: `${title}, whole form`, title: tuning ? `${title} · tuning: ${tuning}` : title };
  }
  const name = own ?? PARTS[kind].name;
  return { name: kind === 'seam' && bars ? `${name}, ${loopName({ kind: 'bars', ...bars })}` : name, title };
}

/** What comes next, as it is announced: the part; of a form its key too. */
export function announced({ name, key, kind }: RunPart): string {
  return kind === 'form' && key ? `${name} · ${keyName(key)}` : name;
}

/** What the stand is opened for; null for a part that is not played there. */
export function assignmentOf({ kind, item, data, key, tempo, name, steps }: RunPart): Assignment | null {
  if (kind === 'form' && !data) {
    return {
      item: null,
      name: 'The whole form',
      what: 'band',
      over: { kind: 'form' },
      area: null,
      key: key ?? null,
      start: tempo ?? null,
      steps: []
    };
  }
  if (!data) return null;
  return {
    item: item ?? null,
    name,
    what: data.what,
    line: data.line,
    over: data.over,
    area: data.area,
    key: key ?? data.key,
    start: tempo ?? null,
    steps: steps ?? [],
    rung: data.tempo.step
  };
}

/** Where a part is played. */
export function placeOfPart({ kind, chart, item }: RunPart): string {
  if (kind === 'cards') return '/trainer';
  if (item !== undefined && lickPlaceOf(item)) return `/licks?item=${encodeURIComponent(item)}`;
  if (kind === 'rest' || chart === undefined) return '/today';
  if (kind === 'free') return `/charts/${chart}`;
  return `/charts/${chart}?view=rehearse`;
}

/** Whether a part is played at the stand or asked on cards: its time begins when that does. */
export const sounds = (part: RunPart): boolean =>
  part.kind !== 'free' && /^\/(charts|trainer)/.test(placeOfPart(part));

/** Another item in a part's place, for the same minutes, as the player wished; null for one that cannot be played. */
export function inPlaceOf(
  part: RunPart,
  { id, data, progress, chart, title }: ItemWithProgress
): RunPart | null {
  if (!progress || !data) return null;
  const kind = progress.state === 'held' ? 'held' : progress.state === 'open' ? 'new' : 'in progress';
  return {
    id: `${part.id} ${id}`,
    kind,
    minutes: part.minutes,
    item: id,
    ...(chart === null ? {} : { chart }),
    ...(data.key === null ? {} : { key: data.key }),
    tempo: progress.next,
    steps: [{ minutes: part.minutes, tempo: progress.next, base: progress.base, goal: data.tempo.goal }],
    name: data.name,
    title,
    data,
    why: `Taken by you in place of “${part.name}”. ${PARTS[kind].name}.`
  };
}
