/**
 * The plan for today: minutes in, a session out, with a reason for each part (9-practice). The same items, log, cards and day
 * give the same plan.
 */
import { transposeKey } from '../../chart/transpose';
import { readKey } from '../../harmony/key';
import { prettySymbol } from '../../theory/typeset';
import { counted } from '../../theory/words';
import { agoText } from '../log/day';
import { ITEM_MINUTES, type LogRow, type PracticeItem } from '../log/model';
import { progressOf, type Progress } from '../log/progress';
import { stepped, WARM_UP } from '../log/tempo';
import { inOrder } from './order';
import { offerOf, shareOut, type Offer } from './knapsack';
import {
  HELD_FOR,
  MOST_SEAMS,
  PARTS,
  restsIn,
  STUMBLED_OFTEN,
  WHOLE_FORM,
  WORTH_LATER,
  type PartKind,
  type SessionPart,
  type Stumbled
} from './parts';

export interface DueCard {
  readonly id: string;
  /** The day it is due on, or a moment that begins with it. */
  readonly due: string;
}

export interface SessionWish {
  readonly items: readonly PracticeItem[];
  readonly log: readonly LogRow[];
  readonly cards?: readonly DueCard[];
  /** Where it went wrong lately. */
  readonly stumbled?: readonly Stumbled[];
  /** There are cards that were never asked. */
  readonly hasNewCards?: boolean;
  readonly minutes: number;
  readonly day: string;
}

export interface Session {
  readonly session: readonly SessionPart[];
  /** Cards that are due, the longest first. */
  readonly due: readonly string[];
  /** Items that are held, as they stand. */
  readonly held: readonly string[];
}

/** A part before the minutes are shared out. */
interface Candidate {
  readonly kind: PartKind;
  readonly item?: PracticeItem;
  readonly stumbled?: Stumbled;
  readonly offer: Offer;
  readonly why: string;
}

const FOURTH = 5;
const KEYS = 12;

export function planSession(wish: SessionWish): Session {
  const { items, log, day, minutes } = wish;
  const progress = progressOf(items, log, day);
  const due = dueCards(wish.cards ?? [], day);
  const held = items.filter(({ id }) => progress.get(id)!.state === 'held').map(({ id }) => id);
  const candidates = candidatesOf(wish, progress, due.length);
  const room = minutes - restsIn(minutes);
  const offers = candidates.map(({ offer }) => offer);
  // What is due comes first whatever else there is; the rest shares what it leaves.
  const first = due.length > 0 ? [Math.min(room, offers[0]!.minutes)] : [];
  const left = room - (first[0] ?? 0);
  const taken = [...first, ...shareOut(offers.slice(first.length), left)];
  const parts = candidates.flatMap((candidate, at) =>
    taken[at] ? [partOf(candidate, taken[at], progress)] : []
  );
  const full = filled(parts, candidates, room, wish, progress);
  return { session: inOrder(full, minutes, held.length > 1), due, held };
}

/** Cards due on a day or before it, the longest due first, then by id. */
export function dueCards(cards: readonly DueCard[], day: string): readonly string[] {
  return cards
    .filter(({ due }) => due.slice(0, 10) <= day)
    .sort((a, b) => compared(a.due, b.due) || compared(a.id, b.id))
    .map(({ id }) => id);
}

const compared = (a: string, b: string) => (a < b ? -1 : a > b ? 1 : 0);

/** All that could be practised, the most pressing first. */
function candidatesOf(
  { items, day, minutes, hasNewCards, stumbled = [] }: SessionWish,
  progress: ReadonlyMap<string, Progress>,
  due: number
): Candidate[] {
  const open = items.filter(({ id }) => progress.get(id)!.isOpen);
  const of = (item: PracticeItem) => progress.get(item.id)!;
  const inState = (state: Progress['state']) => open.filter((item) => of(item).state === state);
  const seams = open
    .filter((item) => of(item).isSeam)
    .sort((a, b) => of(b).unclean - of(a).unclean || compared(a.id, b.id))
    .slice(0, MOST_SEAMS);
  const changes = [...stumbled]
    .filter(({ times }) => times >= STUMBLED_OFTEN)
    .sort((a, b) => b.times - a.times || compared(a.chart, b.chart) || a.change - b.change)
    .slice(0, MOST_SEAMS - seams.length);
  // Nothing lies for ever behind something else that is worth as much: the longest untouched comes first, then the id decides.
  const untouched = (state: Progress['state']) =>
    inState(state)
      .filter((item) => !seams.includes(item))
      .sort((a, b) => compared(of(a).lastDay ?? '', of(b).lastDay ?? '') || compared(a.id, b.id));
  const [underWay, held] = [untouched('in progress'), untouched('held')];
  const [fresh] = inState('open');
  const isFirst = items.every((item) => of(item).lastDay === null);
  const candidate = (kind: PartKind, why: string, item?: PracticeItem, share = 1): Candidate => ({
    kind,
    why,
    offer: offerOf(item?.minutes ?? PARTS[kind].minutes, PARTS[kind].value * share),
    ...(item ? { item } : {})
  });
  const percent = (item: PracticeItem) => `${Math.round(of(item).unclean * 100)} %`;
  const last = (item: PracticeItem) => agoText(of(item).lastDay ?? day, day);
  const cards = due
    ? `${counted(due, 'card')} due; before the hands tire.`
    : 'New cards from what you practise.';
  return [
    ...(due > 0 || hasNewCards ? [candidate('cards', cards)] : []),
    ...seams.map((item) =>
      candidate('seam', `${percent(item)} of its last rounds were not clean; slowly, and alone.`, item)
    ),
    ...changes.map((own): Candidate => ({
      ...candidate(
        'seam',
        `It went wrong ${counted(own.times, 'time')} going into ${prettySymbol(own.symbol)} lately; the two chords, round and round, slowly.`
      ),
      stumbled: own
    })),
    ...(fresh ? [candidate('new', firstReason(isFirst, fresh), fresh)] : []),
    ...underWay.map((item) => candidate('in progress', reasonUnderWay(item, of(item), last(item)), item)),
    ...held.map((item, at) =>
      candidate(
        'held',
        `Held at ${of(item).held}; last played ${last(item)}, so that it stays.`,
        item,
        at < minutes / HELD_FOR ? 1 : WORTH_LATER
      )
    ),
    ...(open.some(({ chart }) => chart) ? [candidate('form', 'All of it once, as it will be played.')] : [])
  ];
}

function firstReason(isFirstDay: boolean, { after }: PracticeItem): string {
  if (isFirstDay) return 'The first thing: one area of the neck, slowly enough to be clean.';
  return after?.length ? 'What it stands on is held; one new thing a day.' : 'One new thing a day.';
}

function reasonUnderWay({ tempo }: PracticeItem, { clean }: Progress, last: string): string {
  const reached = clean === null ? 'not clean yet' : `clean at ${clean}`;
  return `In progress: ${reached}, to be held at ${tempo.goal}; last played ${last}.`;
}

function partOf(
  { kind, item, stumbled, why }: Candidate,
  minutes: number,
  progress: ReadonlyMap<string, Progress>
): SessionPart {
  if (stumbled) return { kind, minutes, chart: stumbled.chart, change: stumbled.change, why };
  if (!item) return { kind, minutes, why };
  return {
    kind,
    minutes,
    item: item.id,
    ...(item.chart === undefined ? {} : { chart: item.chart }),
    ...(item.key === undefined ? {} : { key: item.key }),
    tempo: progress.get(item.id)!.next,
    why
  };
}

/**
 * What is left over of the minutes: parts grow up to one and a half of their own, then items that were clean go on into the
 * next keys, then the form takes the rest; where there is no chart it is played freely.
 */
function filled(
  parts: readonly SessionPart[],
  candidates: readonly Candidate[],
  room: number,
  { items }: SessionWish,
  progress: ReadonlyMap<string, Progress>
): SessionPart[] {
  const most = (part: SessionPart) =>
    candidates.find(({ kind, item }) => kind === part.kind && item?.id === part.item)!.offer.most;
  const grown = lengthened(parts, most, room);
  const known = new Map(items.map((item) => [item.id, item]));
  const all = [...grown, ...nextKeys(grown, room - sumOf(grown), known, progress)];
  const left = room - sumOf(all);
  const chart = chartOf(all, items, progress);
  const form = all.findIndex(({ kind }) => kind === 'form');
  if (left > 0 && form >= 0) all[form] = { ...all[form]!, minutes: all[form]!.minutes + left };
  else if (left > 0) all.push(chart ? theForm(left) : free(left, items.length > 0));
  return all.map((part) => {
    if (part.kind === 'form') return formPart(part, chart, items, progress);
    if (part.change === undefined) return part;
    const tempo = slowest(items, part.chart, progress);
    return tempo === undefined ? part : { ...part, tempo };
  });
}

const sumOf = (parts: readonly SessionPart[]) => parts.reduce((sum, { minutes }) => sum + minutes, 0);

/** Minute by minute to one part after the other, as far as each goes. */
function lengthened(
  parts: readonly SessionPart[],
  most: (part: SessionPart) => number,
  room: number
): SessionPart[] {
  const grown = parts.map((part) => ({ ...part }));
  let left = room - sumOf(parts);
  for (let grew = true; grew && left > 0;) {
    grew = false;
    for (const part of grown) {
      if (left === 0 || part.minutes >= most(part)) continue;
      part.minutes += 1;
      left -= 1;
      grew = true;
    }
  }
  return grown;
}

/** Items that were clean, again in the keys a fourth up and further, as long as none has to come twice running. */
function nextKeys(
  parts: readonly SessionPart[],
  room: number,
  items: ReadonlyMap<string, PracticeItem>,
  progress: ReadonlyMap<string, Progress>
): SessionPart[] {
  const more: SessionPart[] = [];
  const played = parts.filter(({ item }) => item !== undefined);
  const ready = parts.filter(
    ({ kind, item }) => (kind === 'in progress' || kind === 'held') && progress.get(item!)!.clean !== null
  );
  let left = room;
  for (let fourths = 1; fourths < KEYS; fourths++) {
    for (const part of ready) {
      const item = items.get(part.item!)!;
      const { least, most } = offerOf(item.minutes ?? ITEM_MINUTES, 0);
      const times = 1 + more.filter((one) => one.item === part.item).length;
      const others = played.length + more.length - times;
      if (left < least || times > others) continue;
      const minutes = Math.min(most, left);
      left -= minutes;
      more.push(inKey(part, item, minutes, fourths));
    }
  }
  return more;
}

function inKey(part: SessionPart, item: PracticeItem, minutes: number, fourths: number): SessionPart {
  const own = item.key === null || item.key === undefined ? null : readKey(item.key);
  const key = own && transposeKey(item.key!, own, (fourths * FOURTH) % KEYS);
  return {
    ...part,
    minutes,
    fourths,
    ...(key ? { key } : {}),
    tempo: stepped(part.tempo!, -WARM_UP, item.tempo.step),
    why: `The same ${fourths === 1 ? 'a fourth up' : `${counted(fourths, 'fourth')} up`}: time is left for another key.`
  };
}

const theForm = (minutes: number): SessionPart => ({
  kind: 'form',
  minutes,
  why: 'All of it once, as it will be played.'
});

const free = (minutes: number, hasItems: boolean): SessionPart => ({
  kind: 'free',
  minutes,
  why: hasItems
    ? 'Nothing else is due: play freely over what you have practised.'
    : 'Nothing is being practised yet: take a chart, one area of the neck, and find its thirds.'
});

/** A whole form at the best tempo that is held in its chart; its first section, and one of which nothing is held, slowly. */
function formPart(
  part: SessionPart,
  chart: string | undefined,
  items: readonly PracticeItem[],
  progress: ReadonlyMap<string, Progress>
): SessionPart {
  const scope = part.minutes < WHOLE_FORM ? 'first section' : 'whole';
  const held = items.flatMap((item) => (item.chart === chart ? (progress.get(item.id)!.held ?? []) : []));
  const best = scope === 'whole' && held.length ? Math.max(...held) : undefined;
  const tempo = best ?? slowest(items, chart, progress);
  return {
    ...part,
    ...(chart === undefined ? {} : { chart }),
    ...(tempo === undefined ? {} : { tempo }),
    scope,
    why: scope === 'whole' ? part.why : 'The first section slowly: time for a whole form is not left.'
  };
}

/** The chart that most of the session is about; of open items where the session has none. */
function chartOf(
  parts: readonly SessionPart[],
  items: readonly PracticeItem[],
  progress: ReadonlyMap<string, Progress>
): string | undefined {
  const minutes = new Map<string, number>();
  for (const { chart, minutes: own } of parts) if (chart) minutes.set(chart, (minutes.get(chart) ?? 0) + own);
  const [first] = [...minutes].sort((a, b) => b[1] - a[1] || compared(a[0], b[0]));
  return first?.[0] ?? items.find(({ id, chart }) => chart && progress.get(id)!.isOpen)?.chart;
}

/** The tempo at which all of a chart's items that are under way can be played. */
function slowest(
  items: readonly PracticeItem[],
  chart: string | undefined,
  progress: ReadonlyMap<string, Progress>
): number | undefined {
  const tempos = items.flatMap((item) =>
    item.chart === chart && progress.get(item.id)!.isOpen ? [progress.get(item.id)!.next] : []
  );
  return chart !== undefined && tempos.length ? Math.min(...tempos) : undefined;
}
