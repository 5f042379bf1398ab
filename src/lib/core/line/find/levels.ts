/**
 * How full a line is: the levels a player asks for, each a row. A level says which cells a slot is chosen from and how the line goes
 * there; the best line is found for all of them in the same way. Source: docs/music-rules.md, Finding a line.
 */
import { firstOf, nth } from '../../base/list';
import type { Midi, Ticks } from '../../base/units';
import type { Way } from '../lattice';
import type { NamedTone } from '../../moment/moment';
import { byNumber } from './numbers';
import { FIGURES, stepsOf, tonesIn, type Figure, type FigureTone } from './figures';
import type { PlannedSlot } from './costs';
import type { PoolCell } from './pool';
import type { Density } from './rhythm';
import { TICKS } from '../model';
import type { Measure } from '../move';

/** A slot between two landings. */
export interface SlotPlace {
  /** Every cell of the area there. */
  readonly pool: readonly PoolCell[];
  /** What degrees are counted in there. */
  readonly measure: Measure;
  /** In ticks. */
  readonly start: Ticks;
  /** Counted from the last landing, which is 0, and how many slots there are until the next. */
  readonly at: number;
  readonly count: number;
  /** The landing that follows. */
  readonly next: NamedTone | null;
  readonly figure: Figure;
  /** Notes in a beat. */
  readonly perBeat: number;
  /** Its figure does not lie there as it is. */
  readonly isLoose: boolean;
  /** Down first, up after: the other way round. */
  readonly isReverse: boolean;
}

/** What a level says about a slot. */
export type SlotWish = Pick<PlannedSlot, 'cells' | 'way' | 'goes' | 'must'> &
  Partial<Pick<PlannedSlot, 'turning' | 'standing' | 'isFree' | 'leadsUp'>>;

export interface SlotLevel {
  readonly density: Density;
  /** Bars of a phrase where the player does not say; 0 for none. */
  readonly phrase: number;
  /** A bar that only repeats the one before is not wanted. */
  readonly varies?: true;
  readonly wish: (place: SlotPlace) => SlotWish;
  /** What may be landed on, where that is not the target alone. */
  readonly landing?: (place: SlotPlace, target: NamedTone) => readonly PoolCell[] | null;
}

/** One that has to rise or fall; and one that must. */
const FIRMLY = 1.6;
/** A line that keeps its direction to the edge of the area. */
const ONLY_AT_EDGE = 3;

const isChordTone = ({ kind }: PoolCell) => kind === 'chord';
const isAtHome = ({ kind }: PoolCell) => kind !== 'chromatic';

/** Chord tones; the whole choice where the area has too few of them. */
const chordTones = (pool: readonly PoolCell[]) => {
  const tones = pool.filter(isChordTone);
  return tones.length > 1 ? tones : pool.filter(isAtHome);
};

/** What may lead into the landing that follows: what is there anyway, the choice, and off the beat a chromatic semitone. */
export function leadingCells(cells: readonly PoolCell[], { pool, next, start }: SlotPlace): PoolCell[] {
  if (!next) return [...cells];
  const farthest = { chromatic: start % TICKS === 0 ? 0 : 1, home: 2 };
  const near = ({ midi, kind }: PoolCell) => {
    const distance = Math.abs(midi - next.midi);
    return distance > 0 && distance <= farthest[kind === 'chromatic' ? 'chromatic' : 'home'];
  };
  const all = new Set([...cells, ...pool.filter(near)]);
  return pool.filter((cell) => all.has(cell));
}

const isLast = ({ at, count, next }: SlotPlace) => next !== null && at === count - 1;

const arpeggio = (place: SlotPlace): SlotWish => ({
  cells: isLast(place) ? leadingCells(chordTones(place.pool), place) : chordTones(place.pool),
  goes: isLast(place) ? 'freely' : 'leaps'
});

/** Arpeggio the one way in the first half, scale the other in the second. */
function arpeggioAndScale(place: SlotPlace): SlotWish {
  const { pool, at, count, isReverse } = place;
  const isFirstHalf = at <= count / 2;
  const to: Way = isFirstHalf !== isReverse ? 1 : -1;
  const way = { to, against: FIRMLY };
  if (isFirstHalf) return { cells: chordTones(pool), goes: 'leaps', way };
  const cells = pool.filter(isAtHome);
  return isLast(place)
    ? { cells: leadingCells(cells, place), goes: 'steps', way: { to, against: 0.4 } }
    : { cells, goes: 'steps', way };
}

const withoutStop = (place: SlotPlace): SlotWish => {
  const cells = place.pool.filter(isAtHome);
  return {
    cells: isLast(place) ? leadingCells(cells, place) : cells,
    goes: 'steps',
    turning: ONLY_AT_EDGE
  };
};

/** The slots of a sequence: all that is played there; which of it, the sequence says. */
const sequence = ({ pool }: SlotPlace): SlotWish => ({ cells: pool.filter(isAtHome), goes: 'freely' });

/** The steps of a figure over a stretch, made once for each pool. */
const knownSteps = new WeakMap<readonly PoolCell[], Map<readonly FigureTone[], ReturnType<typeof stepsOf>>>();

function stepsIn({ pool, measure }: SlotPlace, tones: readonly FigureTone[]): ReturnType<typeof stepsOf> {
  const own = knownSteps.get(pool) ?? new Map<readonly FigureTone[], ReturnType<typeof stepsOf>>();
  knownSteps.set(pool, own);
  const home = new Set(pool.filter(isAtHome).map(({ midi }) => midi % 12));
  const pcOf = (number: number) => (measure.root + nth(measure.numbers, ((number - 1) % 7) + 1)) % 12;
  const steps = own.get(tones) ?? stepsOf(tones, pcOf, (pc) => home.has(pc));
  own.set(tones, steps);
  return steps;
}

/** The tones of a figure from its second on, round and round; what is left over at the end leads on. */
function figure(place: SlotPlace): SlotWish {
  const { figure: own, at, count, pool, measure, next, perBeat, isLoose } = place;
  const tones = tonesIn(own, perBeat);
  const size = tones.length;
  const whole = Math.floor(count / size) * size;
  const isOver = whole > 0 && at >= whole;
  const tone = nth(tones, at % size);
  if (isOver || pool.length === 0) return arpeggio(place);
  const cells = cellsFor(tone, pool, measure);
  if (cells.length === 0) return arpeggio(place);
  const steps = stepsIn(place, tones)[at % size];
  const isBack = at % size === 0 && tones[size - 1] === 'below';
  // What would lie round a tone of this chord lies round the target to come.
  const before = tones[(at + size - 1) % size];
  const isLedOn =
    next !== null &&
    (tone === 'above' ? at >= count - 2 : tone === 'below' && at === count - 1 && before !== 'above');
  const allowed = isLoose || isLedOn ? null : isBack ? [1] : steps;
  return {
    // The last of a figure steps on where it can; it stays what it is.
    cells,
    goes: next && at === count - 1 ? 'freely' : 'leaps',
    ...(allowed ? { must: (from: PoolCell, to: PoolCell) => allowed.includes(to.midi - from.midi) } : {}),
    ...(tone === 'below' && at === count - 1 && next ? { leadsUp: true as const } : {})
  };
}

function cellsFor(tone: FigureTone, pool: readonly PoolCell[], measure: Measure): readonly PoolCell[] {
  if (tone === 'below') return pool;
  return pool.filter(tone === 'above' ? isAtHome : byNumber([tone], measure));
}

/** The target where its whole cell lies in the area from there; else the places of its first tone from which it does; null where none is. */
function figureLanding(place: SlotPlace, target: NamedTone): readonly PoolCell[] | null {
  const { pool, count, figure: own, measure, perBeat } = place;
  const tones = tonesIn(own, perBeat);
  const steps = stepsIn(place, tones);
  const length = Math.min(count, tones.length);
  const there = new Set(pool.map(({ midi }) => midi));
  const goesOn = (midi: Midi, at: number): boolean =>
    at >= length || (steps[at] ?? []).some((step) => there.has(midi + step) && goesOn(midi + step, at + 1));
  const isTarget = ({ midi, string }: PoolCell) => midi === target.midi && string === target.string;
  const fitting = cellsFor(firstOf(tones), pool, measure).filter(({ midi }) => goesOn(midi, 1));
  if (fitting.length === 0) return null;
  return fitting.some(isTarget) ? pool.filter(isTarget) : fitting;
}

export const SLOT_LEVELS = {
  arpeggio: { density: 'open', phrase: 4, varies: true, wish: arpeggio },
  'arpeggio and scale': { density: 'full', phrase: 4, varies: true, wish: arpeggioAndScale },
  'without a stop': { density: 'full', phrase: 0, varies: true, wish: withoutStop },
  figure: { density: 'full', phrase: 0, wish: figure, landing: figureLanding },
  sequence: { density: 'full', phrase: 0, wish: sequence }
} as const satisfies Readonly<Record<string, SlotLevel>>;

export const DEFAULT_FIGURE = firstOf(FIGURES);
