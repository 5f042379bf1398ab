/**
 * The rhythm of phrases: cells drawn bar by bar, moved where a change is met early or late, taken up where a phrase takes up another.
 * Source: docs/music-rules.md, Phrases, Rhythm and Landings.
 */
import { firstOf, lastOf, nth, sure } from '../../base/list';
import type { Ticks } from '../../base/units';
import type { Chance } from '../chance';
import { cellsOf, readCell, type Cell, type CellRole, type Vocabulary } from './cells';
import { barAt, pulseAt, pushAt, type Grid, type GridBar, type GridChange, type GridPulse } from './grid';
import { drawn, type PlannedPhrase } from './plan';
import { MEETINGS, type Meeting, type PhraseRow } from './styles';

/** A note before it has a pitch. Times in ticks. */
export interface Strike {
  readonly start: Ticks;
  readonly length: Ticks;
  /** Touched rather than struck. */
  readonly isGhost: boolean;
  /** It comes before the change or bar line that it belongs to, by so many ticks. */
  readonly ahead: number;
  /** A step beside the note that follows, which it leans on. */
  readonly leans: boolean;
  /** It says the note before once more. */
  readonly repeats: boolean;
  /** The player has it there. */
  readonly isPinned: boolean;
  /** What the phrase goes on to: it stays, and what follows gives way. */
  readonly isGoal?: true;
}

/** A phrase with its rhythm. */
export interface PhraseRhythm {
  /** Its place in the plan. */
  readonly index: number;
  readonly plan: PlannedPhrase;
  readonly strikes: readonly Strike[];
}

export interface RhythmWish {
  readonly row: PhraseRow;
  readonly grid: Grid;
  readonly changes: readonly GridChange[];
  /** When a change is to be met, where the player has said. */
  readonly meets: ReadonlyMap<number, Meeting>;
  /** Changes that have to be met. */
  readonly pinned: ReadonlySet<number>;
  /** Changes to chords that rest nowhere: a phrase goes on to what they lead to. */
  readonly restless: ReadonlySet<number>;
  readonly chance: Chance;
}

const FEWEST = 3;
/** Three even eighths in every dotted beat are how such bars are counted, not how they are sung. */
const PLAIN_TRIPLE = 0.35;
/** A bar without a note on any pulse, after another one, floats. */
const FLOATING = 0.15;
/** How much less likely a cell is for each time it was used. */
const TIRES = 1.1;
const LIKES_MIXED = 1.6;

/** Which words of a cell a shorter bar takes. */
interface Part {
  readonly vocabulary: Vocabulary;
  readonly pulses: readonly GridPulse[];
}

const SIZES: Readonly<Record<Vocabulary, number>> = {
  swing: 4,
  shuffle: 4,
  rock: 4,
  funk: 4,
  bossa: 4,
  ballad: 4,
  waltz: 3,
  country: 4,
  slow: 4,
  soul: 2
};

/** A bar in groups of pulses that cells are made for: 5/4 is three and two, 7/4 two, three and two. */
function partsOf({ pulses }: GridBar, own: Vocabulary): Part[] {
  const isTriple = pulses.every((pulse) => pulse.isTriple);
  const four: Vocabulary = isTriple ? 'slow' : SIZES[own] === 4 ? own : 'swing';
  const take = (...sizes: readonly number[]): Part[] => {
    let at = 0;
    return sizes.map((size) => {
      const vocabulary: Vocabulary =
        isTriple && size <= 2 ? 'soul' : size === 3 && !isTriple ? 'waltz' : four;
      const part = { vocabulary, pulses: pulses.slice(at, at + size) };
      at += size;
      return part;
    });
  };
  switch (pulses.length) {
    case 1:
    case 2:
    case 3:
      return isTriple && pulses.length === 3 ? take(2, 1) : take(pulses.length);
    case 4:
      return take(4);
    case 5:
      return take(3, 2);
    case 7:
      return take(2, 3, 2);
    default:
      return take(
        ...Array.from({ length: Math.floor(pulses.length / 4) }, () => 4),
        pulses.length % 4
      ).filter((part) => part.pulses.length > 0);
  }
}

/** The part of a cell that a group of fewer pulses takes: its end where it leads somewhere, else its start. */
function cropped(cell: Cell, role: CellRole, size: number): Cell {
  if (cell.words.length <= size) return cell;
  const isEnd = role === 'P' || role === 'S';
  const words = isEnd ? cell.words.slice(-size) : cell.words.slice(0, size);
  // What is held from outside is silence.
  const first = firstOf(words).replace(/^[.]+/, (held) => '-'.repeat(held.length));
  return readCell([first, ...words.slice(1)].join(' '));
}

/** Draws cells, each the less likely the more often it was used. */
class CellDrawer {
  readonly #used = new Map<string, number>();
  /** The cell before had no note on a pulse. */
  #floats = false;

  constructor(
    readonly row: PhraseRow,
    readonly chance: Chance
  ) {}

  /** The strikes of a bar. */
  bar(
    bar: GridBar,
    role: CellRole,
    density: number,
    also: (role: CellRole) => boolean = () => true
  ): Strike[] {
    const parts = partsOf(bar, this.row.vocabulary);
    return parts.flatMap((part, i) => {
      const own = roleIn(role, i, parts.length);
      if (own === null || !also(own)) return [];
      return strikesOf(this.#draw(part, own, density), part.pulses);
    });
  }

  /** The strikes of two bars that are one cell; null where their bars are none that such a cell is made for. */
  twoBars(bars: readonly [GridBar, GridBar], isAfter: boolean, density: number): Strike[] | null {
    const parts = bars.map((bar) => partsOf(bar, this.row.vocabulary));
    const [first, second] = [firstOf(firstOf(parts)), firstOf(nth(parts, 1))];
    const isWhole = (own: Part[]) =>
      own.length === 1 && firstOf(own).pulses.length === SIZES[firstOf(own).vocabulary];
    if (!parts.every(isWhole) || first.vocabulary !== second.vocabulary) return null;
    const cells = cellsOf(first.vocabulary).D.filter(
      ({ words }) => firstOf(words).startsWith('-') === isAfter
    );
    return strikesOf(this.#drawn(cells, density / 2), [...first.pulses, ...second.pulses]);
  }

  #draw({ vocabulary, pulses }: Part, role: CellRole, density: number): Cell {
    const all = cellsOf(vocabulary)[role].map((cell) => cropped(cell, role, pulses.length));
    return this.#drawn(
      all.filter(({ notes }) => notes > 0),
      density
    );
  }

  #drawn(cells: readonly Cell[], density: number): Cell {
    const counts = cells.map(({ notes }) => notes);
    const [fewest, most] = [Math.min(...counts), Math.max(...counts)];
    const wanted = fewest + density * (most - fewest);
    const spread = 0.42 * (most - fewest) + 0.8;
    const cell = drawn(
      this.chance,
      cells,
      ({ text, notes, isMixed, isPlainTriple, floats }) =>
        Math.exp(-(((notes - wanted) / spread) ** 2)) *
        Math.exp(-TIRES * (this.#used.get(text) ?? 0)) *
        (isMixed ? LIKES_MIXED : 1) *
        (isPlainTriple ? PLAIN_TRIPLE : 1) *
        (floats && this.#floats ? FLOATING : 1)
    );
    this.#floats = cell.floats;
    this.#used.set(cell.text, (this.#used.get(cell.text) ?? 0) + 1);
    return cell;
  }
}

/** What a group of pulses does in a bar of several groups. */
function roleIn(role: CellRole, at: number, count: number): CellRole | null {
  if (count === 1) return role;
  const isLast = at === count - 1;
  if (role === 'P') return isLast ? 'P' : null;
  if (role === 'S') return at === 0 ? 'S' : 'M';
  if (role === 'E') return isLast ? 'E' : 'M';
  if (role === 'F') return at === 0 ? 'S' : isLast ? 'E' : 'M';
  return 'M';
}

/** The notes of a cell over its pulses. */
function strikesOf({ words }: Cell, pulses: readonly GridPulse[]): Strike[] {
  const strikes: Strike[] = [];
  let open: { start: Ticks; isGhost: boolean } | null = null;
  const close = (end: Ticks) => {
    if (open) strikes.push(strike(open.start, end - open.start, open.isGhost));
    open = null;
  };
  words.forEach((word, i) => {
    const { start, length } = nth(pulses, i);
    [...word].forEach((sign, n) => {
      const at = start + Math.round((n * length) / word.length);
      if (sign === '.') return;
      close(at);
      if (sign !== '-') open = { start: at, isGhost: sign === 'o' };
    });
  });
  const last = lastOf(pulses);
  close(last.start + last.length);
  return strikes;
}

const strike = (start: Ticks, length: Ticks, isGhost = false): Strike => ({
  start,
  length,
  isGhost,
  ahead: 0,
  leans: false,
  repeats: false,
  isPinned: false
});

const endOf = ({ start, length }: Strike) => start + length;

/** The rhythm of all phrases of a plan. */
export function rhythmOf(plans: readonly PlannedPhrase[], wish: RhythmWish): PhraseRhythm[] {
  const { row, grid, chance } = wish;
  const drawer = new CellDrawer(row, chance);
  const phrases: PhraseRhythm[] = [];
  plans.forEach((plan, index) => {
    const taken = plan.model ? takenUp(plan, phrases, wish, drawer) : null;
    let strikes = taken ?? newStrikes(plan, wish, drawer);
    for (let tries = 0; strikes.filter(({ isGhost }) => !isGhost).length < FEWEST && tries < 4; tries++)
      strikes = newStrikes({ ...plan, start: plan.start === 'one' ? 'one' : 'pickup' }, wish, drawer);
    const model = taken ? plan.model : null;
    phrases.push({ index, plan: { ...plan, model }, strikes });
  });
  return withBreaths(phrases, grid, chance).filter(({ strikes }) => strikes.length > 0);
}

/**
 * The rhythm of one phrase by itself: its own, or that of the one that it takes up, which need not be of its plan. Null where the bars of the
 * two are not alike.
 */
export function rhythmAlone(
  plan: PlannedPhrase,
  model: PhraseRhythm | null,
  wish: RhythmWish
): readonly Strike[] | null {
  const drawer = new CellDrawer(wish.row, wish.chance);
  return model ? takenUp(plan, [model], wish, drawer) : newStrikes(plan, wish, drawer);
}

/** A phrase of its own: cells by their roles, then its landings. */
function newStrikes(plan: PlannedPhrase, wish: RhythmWish, drawer: CellDrawer): Strike[] {
  const { grid } = wish;
  const { first, bars, start, density, isAnswer } = plan;
  const own = grid.bars.slice(first, first + bars);
  const strikes: Strike[] = [];
  if (start === 'pickup') strikes.push(...pickupOf(first, grid, drawer, density));
  const isDouble = own.length >= 2 && wish.chance() < wish.row.twoBars;
  const [penultimate, ultimate] = [own.at(-2), lastOf(own)];
  const double =
    isDouble && penultimate
      ? drawer.twoBars([penultimate, ultimate], start === 'after' && own.length === 2, density)
      : null;
  own.slice(0, double ? -2 : undefined).forEach((bar, i) => {
    const isFirst = i === 0;
    const isLast = i === own.length - 1;
    const role: CellRole =
      isFirst && isLast
        ? start === 'after' || (isAnswer && start !== 'pickup')
          ? 'F'
          : 'E'
        : isLast
          ? 'E'
          : isFirst && start === 'after'
            ? 'S'
            : 'M';
    strikes.push(...drawer.bar(bar, role, density));
  });
  strikes.push(...(double ?? []));
  return withRepeats(withLandings(withGoal(joined(strikes), wish), plan, wish), wish);
}

/** What leads into a bar, over the end of the one before; before the first bar it is imagined as long as that one. */
function pickupOf(first: number, grid: Grid, drawer: CellDrawer, density: number): Strike[] {
  const own = nth(grid.bars, first);
  const before = grid.bars[first - 1];
  if (before) return drawer.bar(before, 'P', density);
  const length = own.end - own.start;
  const imagined: GridBar = {
    start: own.start - length,
    end: own.start,
    pulses: own.pulses.map((pulse) => ({ ...pulse, start: pulse.start - length }))
  };
  return drawer.bar(imagined, 'P', density);
}

/** Notes one after another: none lasts into the next. */
function joined(strikes: readonly Strike[]): Strike[] {
  const all = [...strikes].sort((a, b) => a.start - b.start);
  return all.map((own, i) => {
    const next = all[i + 1];
    return next && endOf(own) > next.start ? { ...own, length: next.start - own.start } : own;
  });
}

/** A phrase that would end over a diminished chord has one note more, over the chord that follows. */
function withGoal(strikes: readonly Strike[], { changes, restless, grid }: RhythmWish): Strike[] {
  const last = strikes.at(-1);
  const under = last && changes.find(({ start, end }) => start <= last.start && end > last.start);
  if (!last || !under || !restless.has(under.change) || under.end >= grid.end) return [...strikes];
  const goal: Strike = { ...strike(under.end, pulseAt(grid, under.end).length), isGoal: true };
  return [...strikes.slice(0, -1), { ...last, length: under.end - last.start }, goal];
}

/** Changes and bar lines inside a phrase are met early, on time or late. */
function withLandings(strikes: readonly Strike[], plan: PlannedPhrase, wish: RhythmWish): Strike[] {
  const { grid, changes, row, chance, meets } = wish;
  const [from, to] = [strikes[0]?.start ?? 0, strikes.at(-1) ? endOf(lastOf(strikes)) : 0];
  const own = grid.bars.slice(plan.first, plan.first + plan.bars);
  const [begin, end] = [firstOf(own).start, lastOf(own).end];
  const byStart = new Map(changes.map((one) => [one.start, one.change]));
  const isPinnedHere = (at: number) => wish.pinned.has(byStart.get(at) ?? -1) && at >= begin && at < end;
  const moments = [...new Set([...own.map(({ start }) => start), ...changes.map(({ start }) => start)])]
    .filter((at) => (at >= from && at < to) || isPinnedHere(at))
    .sort((a, b) => a - b);
  let all = [...strikes];
  for (const at of moments) {
    const change = byStart.get(at);
    const wished = change === undefined ? undefined : meets.get(change);
    const i = all.findIndex(({ start }) => start === at);
    const isPinned = change !== undefined && wish.pinned.has(change);
    if (i < 0 && !isPinned) continue;
    if (i < 0) all = joined([...all, strike(at, pulseAt(grid, at).length)]);
    const place = all.findIndex(({ start }) => start === at);
    const push = pushAt(grid, at, row.isFine === true);
    const drawnHow = wished ?? drawn(chance, MEETINGS, (meeting) => row.meets[meeting]);
    // Of two bars one has a note on a pulse: else nobody hears where the pulse is.
    const how = wished || !wouldFloat(all, at, grid) ? drawnHow : 'on';
    if (isPinned) all = pinnedAt(all, place, how, push);
    else if (how === 'early') all = early(all, place, push);
    else if (how === 'late') all = late(all, place, push, chance);
  }
  return all;
}

/** Whether the bar at a time and the one before it would have no note on a pulse, were the one at that time moved away. */
function wouldFloat(strikes: readonly Strike[], at: number, grid: Grid): boolean {
  const bar = barAt(grid, at);
  const from = nth(grid.bars, Math.max(0, bar - 1)).start;
  const { end } = nth(grid.bars, bar);
  return !strikes.some(
    ({ start, ahead }) =>
      start !== at && start >= from && start < end && ahead === 0 && pulseAt(grid, start).start === start
  );
}

/** A note that the player has there, at its time whatever else was struck. */
function pinnedAt(strikes: readonly Strike[], i: number, how: Meeting, push: number): Strike[] {
  const own = nth(strikes, i);
  const pin = (all: readonly Strike[], start: Ticks) =>
    all.map((one) => (one.start === start ? { ...one, isGhost: false, leans: false, isPinned: true } : one));
  if (how === 'early') return pin(early(strikes, i, push), own.start - push);
  if (how === 'on') return pin(strikes, own.start);
  const start = own.start + push;
  const others = strikes.filter((one) => one !== own && (one.start < own.start || one.start > start));
  return pin(joined([...others, strike(start, Math.max(push, own.length - push))]), start);
}

/** The note comes a push before; what was struck there gives way. It ends where it did. */
function early(strikes: readonly Strike[], i: number, push: number): Strike[] {
  const own = nth(strikes, i);
  const at = own.start - push;
  const before = strikes.slice(0, i).filter(({ start }) => start < at);
  return [
    ...joined([...before, { ...own, start: at, length: own.length + push, ahead: push, isGhost: false }]),
    ...strikes.slice(i + 1)
  ];
}

/** The landing comes a push later: after a note a step beside it, or after nothing. */
function late(strikes: readonly Strike[], i: number, push: number, chance: Chance): Strike[] {
  const own = nth(strikes, i);
  const next = strikes[i + 1];
  const leans = chance() < 0.5;
  const follows = next !== undefined && next.start <= own.start + push;
  if (follows && next.start < own.start + push) return [...strikes];
  const head = leans ? [{ ...own, length: push, leans: true, isGhost: false }] : [];
  if (follows) return [...strikes.slice(0, i), ...head, { ...next, isGhost: false }, ...strikes.slice(i + 2)];
  if (own.length <= push) return [...strikes];
  const landing = { ...own, start: own.start + push, length: own.length - push, isGhost: false };
  return [...strikes.slice(0, i), ...head, landing, ...strikes.slice(i + 1)];
}

/** Short notes that say the one before once more, where the style does. */
function withRepeats(strikes: readonly Strike[], { row, chance, grid }: RhythmWish): Strike[] {
  let run = 0;
  return strikes.map((own, i) => {
    const before = strikes[i - 1];
    const isJoined =
      before && endOf(before) === own.start && !before.leans && !own.isGhost && !before.isGhost;
    const isShort = before && before.length <= pulseAt(grid, before.start).length / 2;
    const again = Boolean(isJoined && isShort && run === 0 && own.ahead === 0) && chance() < row.repeats;
    run = again ? run + 1 : 0;
    return again ? { ...own, repeats: true } : own;
  });
}

/** The part of a phrase that a variation keeps. */
const KEPT = 0.6;

/** The rhythm of an earlier phrase over other bars, with its landings as they were; null where the bars are not alike. */
function takenUp(
  plan: PlannedPhrase,
  phrases: readonly PhraseRhythm[],
  wish: RhythmWish,
  drawer: CellDrawer
): Strike[] | null {
  const { of, how } = sure(plan.model, 'the model of a phrase');
  const model = phrases[of];
  const { grid, chance } = wish;
  if (!model || model.strikes.length === 0 || model.plan.bars !== plan.bars) return null;
  const [from, to] = [nth(grid.bars, plan.first).start, nth(grid.bars, plan.first + plan.bars - 1).end];
  // What the player has pinned there is no repetition.
  const isPinned = ({ change, start }: GridChange) => wish.pinned.has(change) && start >= from && start < to;
  if (wish.changes.some(isPinned)) return null;
  const shape = (bar: GridBar) =>
    bar.pulses.map(({ start }) => start - bar.start).join() + `/${bar.end - bar.start}`;
  const pairs = Array.from({ length: plan.bars }, (_, i) => [
    grid.bars[model.plan.first + i],
    grid.bars[plan.first + i]
  ]);
  if (!pairs.every(([a, b]) => a && b && shape(a) === shape(b))) return null;
  const moved =
    nth(grid.bars, plan.first).start -
    nth(grid.bars, model.plan.first).start +
    (sure(plan.model, 'the model of a phrase').by ?? 0);
  const strikes = model.strikes.map((own) => ({ ...own, start: own.start + moved }));
  if (how !== 'varied' || plan.bars < 1 || chance() < 0.5) return strikes;
  const last = nth(grid.bars, plan.first + plan.bars - 1);
  const head = strikes.filter(({ start }) => start < last.start - 1);
  if (plan.bars === 1 || head.length < Math.ceil(KEPT * strikes.length) - 1) return strikes;
  // What reaches over the bar line already stands there.
  const free = Math.max(last.start, head.at(-1)?.ahead ? endOf(lastOf(head)) : last.start);
  const end = drawer.bar(last, 'E', plan.density).filter(({ start }) => start >= free);
  return end.length > 0 ? joined([...head, ...end]) : strikes;
}

/** A beat of silence between phrases: the last note is shortened for it, then a pickup loses notes, then the phrase before does. */
function withBreaths(phrases: readonly PhraseRhythm[], grid: Grid, chance: Chance): PhraseRhythm[] {
  const all = phrases.map((phrase) => ({ ...phrase, strikes: [...phrase.strikes] }));
  for (let i = 1; i < all.length; i++) {
    const [before, own] = [nth(all, i - 1), nth(all, i)];
    if (before.strikes.length === 0 || own.strikes.length === 0) continue;
    const pulse = pulseAt(grid, firstOf(own.strikes).start);
    const beat = pulse.isTriple ? (pulse.length * 2) / 3 : pulse.length;
    const wanted = chance() < 0.25 + 0.5 * own.plan.density ? beat : 2 * beat;
    const line = nth(grid.bars, own.plan.first).start;
    const silence = () => firstOf(own.strikes).start - endOf(lastOf(before.strikes));
    const shortest = pulse.length / 2;
    for (let turns = 0; silence() < wanted && turns < 64; turns++) {
      const last = lastOf(before.strikes);
      const over = wanted - silence();
      if (last.length > shortest) {
        before.strikes[before.strikes.length - 1] = {
          ...last,
          length: Math.max(shortest, last.length - over)
        };
        continue;
      }
      // The full two beats are a wish; one of them has to be.
      if (silence() >= beat && wanted > beat) break;
      const first = firstOf(own.strikes);
      const isPickup = first.start + first.ahead < line && !first.isPinned;
      const mayShrink = own.strikes.length > FEWEST && !first.isPinned;
      if ((isPickup || last.isGoal) && mayShrink) own.strikes.shift();
      else if (before.strikes.length > FEWEST && !last.isPinned && !last.isGoal) before.strikes.pop();
      else break;
    }
    // Where there is no room, the shorter one gives way altogether.
    if (silence() >= 0) continue;
    if (own.strikes.some(({ isPinned }) => isPinned))
      before.strikes = before.strikes.filter((one) => endOf(one) <= firstOf(own.strikes).start);
    else own.strikes.length = 0;
  }
  return all;
}
