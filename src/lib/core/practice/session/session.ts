/**
 * The plan for today: minutes in, a session out, with a reason for each part (docs/music-rules.md, *Practice*). The same items, log, cards and day
 * give the same plan.
 */
import { entryOf, firstOf, nth, sure } from '../../base/list';
import { counted } from '../../theory/words';
import { agoText, dayAfter, daysBetween, numberOf } from '../log/day';
import type { LogRow, PracticeItem } from '../log/model';
import { standingsOf, wrongLately, type Standing } from '../progress/fold';
import { standpointsIn, type Standpoint } from '../progress/progress';
import type { Seam } from '../progress/seams';
import {
  heldMinutes,
  isDoneToday,
  LEAST_MINUTES,
  MOST_PART_MINUTES,
  ownMinutes,
  seamsIn,
  seamStep,
  stepsOf
} from '../progress/turn';
import { DATE, daysTo, forecast, type Forecast, type SetList, type SetTune } from './date';
import { inOrder } from './order';
import { wordFor } from './word';
import { REST_FOR, restsIn, type PartKind, type SessionPart } from './parts';

export interface DueCard {
  readonly id: string;
  /** The day it is due on, or a moment that begins with it. */
  readonly due: string;
}

export interface SessionWish {
  readonly items: readonly PracticeItem[];
  readonly log: readonly LogRow[];
  readonly cards?: readonly DueCard[] | undefined;
  /** There are cards that were never asked. */
  readonly hasNewCards?: boolean | undefined;
  /** The chart that was worked on last, for a look around where nothing is practised. */
  readonly latest?: string | undefined;
  /** What there is to play, and when. */
  readonly set?: SetList | undefined;
  readonly minutes: number;
  readonly day: string;
}

export interface Session {
  readonly session: readonly SessionPart[];
  /** Cards that are due, the longest first. */
  readonly due: readonly string[];
  /** Items that are held, as they stand. */
  readonly held: readonly string[];
  /** Said before it begins: after a break, a hard day, on a short one. */
  readonly word?: string;
  /** Of each tune of the set list, in its order, the tempo that its form will have by then. */
  readonly readiness?: readonly ({ readonly chart: string } & Forecast)[];
}

/** Minutes of cards, and of a seam. */
const [CARDS, SEAM] = [2, 3];
/** Minutes under which a session holds one seam, not two. */
const TWO_SEAMS = 20;
/** Share of the minutes for a tune that is new, and the most for what is held. */
const FIFTH = 0.2;
/** Things under way at once: a fifth of the minutes, within these. */
const UNDER_WAY = { least: 3, most: 14 };
/** New things of a day, beside a tune that is taken up. */
const NEW_A_DAY = 2;
/** Days without any form after which there is one; sooner for who misses days, lest a missed day make it too long. */
const FORM_EVERY = { usual: 3, missing: 1 };
/** Days looked back on for that, the share of them that has to be played, and how many there have to be. */
const LATELY = { days: 10, share: 0.8, least: 3 };
/** Days that something new waits before it is as pressing as what is under way after one. */
const NEW_WAITS = 1.5;
/** Minutes that a part grows to where there is nothing else, and those of a form. */
const [LONG, LONG_FORM] = [12, 15];
/** Rounds that a long session goes through what is under way. */
const TURNS = 6;

/** The parts of a day in whole minutes, each with its reason. The same in gives the same out. Source: docs/music-rules.md, Practice. */
export function planSession(wish: SessionWish): Session {
  const items = forTheDate(wish);
  const standings = standingsOf(items, wish.log);
  const word = wordFor(wish.log, wish.day, wish.minutes);
  return { ...sessionIn({ ...wish, items }, standings), ...(word ? { word } : {}) };
}

/** Forms of a set list that is near are held at its tempo. */
export function forTheDate({ items, set, day }: SessionWish): readonly PracticeItem[] {
  if (!set || daysTo(set, day) === null) return items;
  const tempos = new Map(set.charts.map(({ chart, tempo }) => [chart, tempo]));
  return items.map((item) => {
    const goal = item.form && item.chart !== undefined ? tempos.get(item.chart) : null;
    return goal ? { ...item, tempo: { ...item.tempo, goal, start: Math.min(goal, item.tempo.start) } } : item;
  });
}

/** The plan from items whose log is folded already. */
export function sessionIn(wish: SessionWish, standings: ReadonlyMap<string, Standing>): Session {
  const { items, day, minutes, set } = wish;
  const progress = standpointsIn(standings, day);
  const due = dueCards(wish.cards ?? [], day);
  const held = items.filter(({ id }) => entryOf(progress, id).state === 'held').map(({ id }) => id);
  const parts = new Planner(wish, standings, progress, due.length).plan();
  const days = daysTo(set, day);
  return {
    session: inOrder(parts, minutes, day),
    due,
    held,
    ...(set && days !== null ? { readiness: readinessOf(set, items, standings, day) } : {})
  };
}

function readinessOf(
  set: SetList,
  items: readonly PracticeItem[],
  standings: ReadonlyMap<string, Standing>,
  day: string
) {
  return set.charts.flatMap(({ chart, tempo }) => {
    const form = formOf(items, chart);
    if (!form) return [];
    return [{ chart, ...forecast(entryOf(standings, form.id), day, set.day, tempo ?? form.tempo.goal) }];
  });
}

const formOf = (items: readonly PracticeItem[], chart: string) =>
  items.find((item) => item.form && item.chart === chart);

/** Cards due on a day or before it, the longest due first, then by id. */
export function dueCards(cards: readonly DueCard[], day: string): readonly string[] {
  return cards
    .filter(({ due }) => due.slice(0, 10) <= day)
    .sort((a, b) => compared(a.due, b.due) || compared(a.id, b.id))
    .map(({ id }) => id);
}

const compared = (a: string, b: string) => (a < b ? -1 : a > b ? 1 : 0);

/** A set list drives the day once something of it is practised. */
const isPractised = ({ set, items }: SessionWish): boolean =>
  set !== undefined && items.some(({ chart }) => set.charts.some((tune) => tune.chart === chart));

/** Something that could be played today. */
interface Candidate {
  readonly kind: PartKind;
  readonly standing: Standing;
  readonly seam?: Seam;
  /** Through without stopping, whatever stumbles. */
  readonly isWhole?: boolean;
  readonly why: string;
}
interface Taken extends Candidate {
  minutes: number;
}

/** What of a tune was played when. */
interface Tune {
  readonly chart: string;
  readonly place: SetTune | undefined;
  firstDay: string | null;
  lastForm: string | null;
  form: Standing | null;
}

/** Shares out the minutes of one day. */
class Planner {
  readonly #wish: SessionWish;
  readonly #progress: ReadonlyMap<string, Standpoint>;
  readonly #all: readonly Standing[];
  readonly #tunes: ReadonlyMap<string, Tune>;
  readonly #due: number;
  /** Days to the date that drives this day, and the tunes of its list. */
  readonly #days: number | null;
  readonly #setTunes: readonly SetTune[];
  #left: number;
  readonly #taken: Taken[] = [];
  #cards = 0;
  /** The tune that begins today. */
  #fresh: string | null = null;

  constructor(
    wish: SessionWish,
    standings: ReadonlyMap<string, Standing>,
    progress: ReadonlyMap<string, Standpoint>,
    due: number
  ) {
    this.#wish = wish;
    this.#progress = progress;
    this.#due = due;
    this.#all = [...standings.values()];
    this.#days = isPractised(wish) ? daysTo(wish.set, wish.day) : null;
    this.#setTunes = this.#days === null ? [] : (wish.set?.charts ?? []);
    this.#left = wish.minutes - restsIn(wish.minutes);
    this.#tunes = this.#tunesOf();
  }

  plan(): SessionPart[] {
    if (this.#due > 0) this.#takeCards();
    if (this.#days !== null) this.#takeRunThrough(this.#days);
    this.#takeFreshTune();
    this.#takeForm();
    this.#takeSeams();
    this.#takeByWaiting();
    this.#fill();
    const cards: SessionPart[] = this.#cards
      ? [{ kind: 'cards', minutes: this.#cards, why: this.#cardsWhy }]
      : [];
    const parts = this.#taken.map((taken) => this.#partOf(taken));
    return [...cards, ...parts, ...(this.#left > 0 ? [this.#lookAround()] : [])];
  }

  // Facts of the day.

  get #day(): string {
    return this.#wish.day;
  }

  #of({ item }: Standing): Standpoint {
    return entryOf(this.#progress, item.id);
  }

  #tunesOf(): ReadonlyMap<string, Tune> {
    const tunes = new Map<string, Tune>();
    for (const standing of this.#all) {
      const { item, firstDay, lastWhole } = standing;
      if (item.chart === undefined) continue;
      const { chart } = item;
      let tune = tunes.get(chart);
      if (!tune) {
        const place = this.#setTunes.find((one) => one.chart === chart);
        tunes.set(chart, (tune = { chart, place, firstDay: null, lastForm: null, form: null }));
      }
      if (firstDay !== null && (tune.firstDay === null || firstDay < tune.firstDay)) tune.firstDay = firstDay;
      if (!item.form) continue;
      tune.form ??= standing;
      if (lastWhole !== null && lastWhole > (tune.lastForm ?? '')) tune.lastForm = lastWhole;
    }
    return tunes;
  }

  /** Things of a set list count double, others a quarter, while its date drives the day. */
  #weight({ item }: Standing): number {
    if (this.#days === null) return 1;
    const place = item.chart === undefined ? undefined : this.#tunes.get(item.chart)?.place;
    if (!place) return DATE.others;
    const isOtherKey = place.key && item.key && place.key !== item.key;
    return isOtherKey ? 1 : DATE.weight;
  }

  #isTaken(standing: Standing): boolean {
    return this.#taken.some((one) => one.standing === standing);
  }

  /** Open, not at rest, and not yet where it is to be today. */
  #isPlayable(standing: Standing): boolean {
    const { isOpen, isResting } = this.#of(standing);
    return isOpen && !isResting && !isDoneToday(standing, this.#day);
  }

  // What comes first.

  #takeCards(): void {
    this.#cards = Math.min(CARDS, this.#left);
    this.#left -= this.#cards;
  }
  get #cardsWhy(): string {
    return this.#due
      ? `${counted(this.#due, 'card')} due; before the hands tire.`
      : 'New cards from what you practise.';
  }

  /** Takes something for so many minutes, or for what is left; false where that is too little. */
  #take(candidate: Candidate, minutes: number): boolean {
    if (this.#left < Math.min(minutes, LEAST_MINUTES) && this.#left < minutes && this.#taken.length > 0)
      return false;
    const own = Math.min(minutes, this.#left);
    if (own < 1) return false;
    this.#taken.push({ ...candidate, minutes: own });
    this.#left -= own;
    return true;
  }

  /** Each tune of a set list every third day, in the last week daily, in the order of the list. */
  #takeRunThrough(days: number): void {
    const most = Math.floor((this.#wish.minutes - restsIn(this.#wish.minutes)) * DATE.forms);
    const every = days <= DATE.lastDays ? 1 : DATE.formEvery;
    const due = this.#setTunes.flatMap(({ chart }, at, all) => {
      const tune = this.#tunes.get(chart);
      // A tune that comes twice in a set is practised once.
      if (all.findIndex((one) => one.chart === chart) < at) return [];
      if (!tune?.form || !this.#isPlayable(tune.form)) return [];
      const since = tune.lastForm === null ? every : daysBetween(tune.lastForm, this.#day);
      return since >= every ? [{ tune, form: tune.form, at, last: tune.lastForm ?? '' }] : [];
    });
    const chosen: ((typeof due)[number] & { minutes: number })[] = [];
    let left = Math.min(most, this.#left);
    for (const one of due.sort((a, b) => compared(a.last, b.last) || a.at - b.at)) {
      const minutes = Math.min(ownMinutes(one.form, this.#day), Math.max(LEAST_MINUTES, left));
      if (left < Math.min(minutes, LEAST_MINUTES)) break;
      chosen.push({ ...one, minutes: Math.min(minutes, left) });
      left -= Math.min(minutes, left);
    }
    const when = days === 0 ? 'today' : days === 1 ? 'tomorrow' : `in ${days} days`;
    for (const { form, minutes, at } of chosen.sort((a, b) => a.at - b.at)) {
      const why = `Number ${at + 1} of ${this.#setTunes.length} of the set ${when}${this.#isLastWeek ? '; through without stopping, as on the day' : ''}.`;
      this.#take({ kind: 'form', standing: form, why, isWhole: this.#isLastWeek }, minutes);
    }
  }

  /** A tune that was taken up and not played yet: one a day; in the last week before a date only one of its list. */
  #takeFreshTune(): void {
    const { minutes } = this.#wish;
    const isFirst = [...this.#tunes.values()].every(({ firstDay }) => firstDay === null);
    for (const tune of this.#tunes.values()) {
      if (tune.firstDay !== null) continue;
      if (this.#isLastWeek && !tune.place) continue;
      const first = this.#all.find(
        (one) => one.item.chart === tune.chart && !one.item.form && this.#isPlayable(one)
      );
      const standing = first ?? tune.form;
      if (!standing || !this.#isPlayable(standing) || this.#isTaken(standing)) continue;
      const why = !first
        ? 'A new tune: all of it, slowly, without stopping.'
        : isFirst
          ? 'The first thing: one area of the neck, slowly enough to be clean.'
          : 'A tune you have added; today it begins.';
      const own = Math.max(LEAST_MINUTES, Math.round(minutes * FIFTH));
      this.#take({ kind: first ? 'new' : 'form', standing, why }, Math.min(own, LONG));
      this.#fresh = tune.chart;
      return;
    }
  }

  /** A whole form where none was for three days: the tune that is longest without. */
  #takeForm(): void {
    // A run-through is one already.
    if (this.#taken.some(({ kind }) => kind === 'form')) return;
    const tunes = [...this.#tunes.values()].flatMap(({ form, ...tune }) =>
      form && (tune.firstDay !== null || tune.chart === this.#fresh) && this.#isPlayable(form)
        ? [{ ...tune, form }]
        : []
    );
    const last = tunes.reduce(
      (latest, { lastForm }) => (lastForm !== null && lastForm > latest ? lastForm : latest),
      ''
    );
    if (last && daysBetween(last, this.#day) < this.#formEvery) return;
    const [tune] = tunes
      .filter(({ form, place }) => !this.#isTaken(form) && (this.#days === null || place))
      .sort((a, b) => compared(a.lastForm ?? '', b.lastForm ?? '') || compared(a.chart, b.chart));
    if (!tune) return;
    const why = tune.lastForm
      ? `The tune you have not played through for longest: ${agoText(tune.lastForm, this.#day)}.`
      : 'Never played through yet; slowly, without stopping.';
    this.#take({ kind: 'form', standing: tune.form, why }, ownMinutes(tune.form, this.#day));
  }

  /** Who misses days plays a form whenever they play. */
  get #formEvery(): number {
    const since = dayAfter(this.#day, -LATELY.days);
    const days = new Set<string>();
    let first = this.#day;
    for (const { day } of this.#wish.log) {
      if (day < first) first = day;
      if (day >= since && day < this.#day) days.add(day);
    }
    const could = Math.min(LATELY.days, daysBetween(first, this.#day));
    return could >= LATELY.least && days.size < LATELY.share * could ? FORM_EVERY.missing : FORM_EVERY.usual;
  }

  #takeSeams(): void {
    const most = this.#wish.minutes < TWO_SEAMS ? 1 : 2;
    const seams = this.#all
      .filter((one) => this.#of(one).isOpen)
      .flatMap((standing) => seamsIn(standing).map((seam) => ({ standing, seam })))
      .sort(
        (a, b) =>
          this.#weight(b.standing) - this.#weight(a.standing) ||
          compared(a.seam.since, b.seam.since) ||
          compared(a.standing.item.id, b.standing.item.id) ||
          a.seam.bar - b.seam.bar
      );
    for (const { standing, seam } of seams.slice(0, most)) {
      const { bar, tempo, stumbles } = seam;
      const why = `Bar ${bar} went wrong ${counted(stumbles, 'time')} lately, at ${tempo} or so; the two bars alone, slowly.`;
      this.#take({ kind: 'seam', standing, seam, why }, SEAM);
    }
  }

  /** What is under way, new and held by the days it has waited over its interval. */
  #takeByWaiting(): void {
    const heldMost = Math.max(LEAST_MINUTES, this.#wish.minutes * FIFTH);
    let [held, fresh] = [0, this.#newRoom()];
    for (const candidate of this.#waiting()) {
      const { kind, standing } = candidate;
      if (this.#isTaken(standing)) continue;
      const minutes = kind === 'held' ? heldMinutes(standing) : ownMinutes(standing, this.#day);
      if (kind === 'held' && held + minutes > heldMost) continue;
      if (kind === 'new' && fresh === 0) continue;
      if (!this.#take(candidate, minutes)) break;
      if (kind === 'held') held += minutes;
      if (kind === 'new') fresh -= 1;
    }
  }

  /** How many new things there is room for beside what is under way. */
  #newRoom(): number {
    const { least, most } = UNDER_WAY;
    const room = Math.min(most, Math.max(least, Math.floor(this.#wish.minutes * FIFTH)));
    const underWay = this.#all.filter((one) => {
      const { state, isResting } = this.#of(one);
      return state === 'in progress' && !isResting && !one.item.form;
    }).length;
    const taken = this.#taken.filter(({ kind }) => kind === 'new').length;
    return Math.min(NEW_A_DAY, Math.max(0, room - underWay - taken));
  }

  /** Open things, the most pressing first; of equal ones another one each day. */
  #waiting(isAll = false): Candidate[] {
    const turn = numberOf(this.#day);
    const count = Math.max(1, this.#all.length);
    const scored = this.#all.flatMap((standing, at) => {
      if (!this.#isPlayable(standing)) return [];
      const candidate = this.#candidateOf(standing, isAll);
      return candidate ? [{ ...candidate, turn: (at + turn) % count }] : [];
    });
    return scored.sort((a, b) => b.score - a.score || a.turn - b.turn);
  }

  #candidateOf(standing: Standing, isAll: boolean): (Candidate & { score: number }) | null {
    const { item } = standing;
    const { state, lastDay, openSince, askOn } = this.#of(standing);
    const weight = this.#weight(standing);
    const since = (day: string) => Math.max(0, daysBetween(day, this.#day));
    if (state === 'held') {
      const asked = sure(askOn, 'the day on which a held thing is asked again');
      const waited = daysBetween(asked, this.#day);
      if (waited < 0 && !isAll) return null;
      // By its own interval: what is asked rarely is less pressing a day late.
      const interval = Math.max(1, daysBetween(lastDay ?? asked, asked));
      return {
        kind: item.form ? 'form' : 'held',
        standing,
        score: weight * (1 + waited / interval),
        why: this.#reason(standing)
      };
    }
    if (state === 'open') {
      const tune = this.#tunes.get(item.chart ?? '');
      // A tune that was not played yet waits for its day.
      const isLater = tune !== undefined && tune.firstDay === null && tune.chart !== this.#fresh;
      if (isLater || this.#isLateNews(standing)) return null;
      const opened = openSince ?? tune?.firstDay;
      const waited = opened ? since(opened) : NEW_WAITS;
      return {
        kind: item.form ? 'form' : 'new',
        standing,
        score: (weight * waited) / NEW_WAITS,
        why: this.#reason(standing)
      };
    }
    return {
      kind: item.form ? 'form' : 'in progress',
      standing,
      // Two bars of it, mended alone, are not the thing itself.
      score: weight * since(standing.lastWhole ?? lastDay ?? this.#day),
      why: this.#reason(standing)
    };
  }

  /** In the last week before a date nothing new is begun but the forms that are on the list. */
  #isLateNews({ item }: Standing): boolean {
    const isOn = item.chart !== undefined && this.#tunes.get(item.chart)?.place !== undefined;
    return this.#isLastWeek && !(isOn && item.form);
  }

  get #isLastWeek(): boolean {
    return this.#days !== null && this.#days <= DATE.lastDays;
  }

  #reason(standing: Standing): string {
    const { item } = standing;
    const { state, clean, lastDay, isFlat } = this.#of(standing);
    const { goal } = item.tempo;
    const last = lastDay === null ? '' : agoText(lastDay, this.#day);
    if (state === 'held') return `Held at ${goal}; last played ${last}, so that it stays.`;
    if (state === 'open') {
      return item.after?.length
        ? 'What comes before it goes well enough; a new thing.'
        : 'Open and not begun yet; a new thing.';
    }
    const reached = clean === null ? 'not clean yet' : `clean at ${clean}`;
    const stuck = !isFlat
      ? ''
      : wrongLately(standing).length > 0
        ? ' Nothing has moved for a while: half of the time goes to the bars that stumble.'
        : ' Nothing has moved for a while.';
    return `Last played ${last}; ${reached}, to be held at ${goal}.${stuck}`;
  }

  // What is left over.

  #fill(): void {
    this.#grow(MOST_PART_MINUTES);
    if (this.#left >= LEAST_MINUTES || this.#taken.length === 0) {
      let fresh = this.#newRoom();
      for (const candidate of this.#waiting(true)) {
        if (this.#isTaken(candidate.standing)) continue;
        const isNew = candidate.kind === 'new';
        if (isNew && fresh === 0) continue;
        if (!this.#take(candidate, ownMinutes(candidate.standing, this.#day))) break;
        if (isNew) fresh -= 1;
      }
    }
    this.#grow(MOST_PART_MINUTES);
    this.#moreForm();
    this.#grow(LONG);
    this.#nextTurns();
    this.#grow(REST_FOR);
    if (this.#cards === 0 && this.#left > 0 && (this.#wish.hasNewCards || this.#due > 0)) this.#takeCards();
  }

  /** Minute by minute to one part after the other; another one is first each day. */
  #grow(most: number): void {
    // A seam and what is held are asked, no more.
    const parts = this.#taken.filter(({ kind }) => !['seam', 'held'].includes(kind) || most === REST_FOR);
    if (parts.length === 0) return;
    const first = numberOf(this.#day) % parts.length;
    for (let grew = true; grew && this.#left > 0;) {
      grew = false;
      for (let i = 0; i < parts.length && this.#left > 0; i++) {
        const part = nth(parts, (first + i) % parts.length);
        if (part.minutes >= most) continue;
        part.minutes += 1;
        this.#left -= 1;
        grew = true;
      }
    }
  }

  /** A form takes what is left, and as much of a part as a form may be long. */
  #moreForm(): void {
    if (this.#left === 0) return;
    const form = this.#taken.find(({ kind }) => kind === 'form');
    const more = (minutes: number) => Math.min(LONG_FORM - minutes, this.#left);
    if (form) {
      const minutes = Math.max(0, more(form.minutes));
      form.minutes += minutes;
      this.#left -= minutes;
      return;
    }
    const played = this.#taken[0]?.standing.item.chart;
    const standing = played === undefined ? null : this.#tunes.get(played)?.form;
    if (!standing || this.#isTaken(standing) || !this.#of(standing).isOpen || this.#left < LEAST_MINUTES)
      return;
    const why = 'Time is left: all of it, as it will be played.';
    this.#take({ kind: 'form', standing, why }, more(0));
  }

  /** A long session goes through what is under way again. */
  #nextTurns(): void {
    const once = this.#taken.filter(({ kind }) => kind !== 'seam');
    if (once.length < 2) return;
    for (let turn = 1; turn < TURNS; turn++) {
      for (const { kind, standing } of once) {
        if (this.#left < LEAST_MINUTES) return;
        const again = kind === 'new' ? 'in progress' : kind;
        const why = 'Once more: time is left, and what is played twice stays.';
        this.#take({ kind: again, standing, why }, MOST_PART_MINUTES);
      }
    }
  }

  #lookAround(): SessionPart {
    const { latest, items } = this.#wish;
    const minutes = this.#left;
    if (items.length > 0) {
      return { kind: 'free', minutes, why: 'Nothing else is due: play freely over what you have practised.' };
    }
    return {
      kind: 'free',
      minutes,
      ...(latest === undefined ? {} : { chart: latest }),
      why: 'Nothing is practised yet: open a chart, take one area of the neck, and find the thirds.'
    };
  }

  #partOf({ kind, standing, seam, isWhole, minutes, why }: Taken): SessionPart {
    const { item } = standing;
    const about = {
      kind,
      minutes,
      item: item.id,
      ...(item.chart === undefined ? {} : { chart: item.chart }),
      ...(item.key === undefined ? {} : { key: item.key })
    };
    const steps = seam
      ? [seamStep(standing, seam, this.#day, minutes)]
      : stepsOf(standing, this.#day, minutes, isWhole);
    const { bars, tempo } = firstOf(steps);
    return { ...about, ...(bars ? { bars } : {}), tempo, steps, why };
  }
}
