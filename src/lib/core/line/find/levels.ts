/**
 * How full a line is: the levels a player asks for, each a row. A level says which cells a slot is chosen from and how the line goes
 * there; the best line is found for all of them in the same way. Source: docs/music-rules.md, Finding a line.
 */
import type { Way } from '../lattice';
import type { NamedTone } from '../../moment/moment';
import { byNumber } from './numbers';
import { FIGURES, type Figure, type FigureTone } from './figures';
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
  readonly start: number;
  /** Counted from the last landing, which is 0, and how many slots there are until the next. */
  readonly at: number;
  readonly count: number;
  /** The landing that follows. */
  readonly next: NamedTone | null;
  readonly figure: Figure;
  /** Down first, up after: the other way round. */
  readonly isReverse: boolean;
}

/** What a level says about a slot. */
export type SlotWish = Pick<PlannedSlot, 'cells' | 'way' | 'goes' | 'must'> &
  Partial<Pick<PlannedSlot, 'turning' | 'standing' | 'isFree'>>;

export interface SlotLevel {
  readonly density: Density;
  /** Bars of a phrase where the player does not say; 0 for none. */
  readonly phrase: number;
  /** A bar that only repeats the one before is not wanted. */
  readonly varies?: true;
  readonly wish: (place: SlotPlace) => SlotWish;
}

/** One that has to rise or fall; and one that must. */
const FIRMLY = 1.6;
const STRICTLY = 4;
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

/** Up the neck, cell by cell; a note may be repeated so that the end falls on the target. */
const sequence = (place: SlotPlace): SlotWish => {
  const { pool, at, measure } = place;
  const five = pool.filter(
    (cell) => isAtHome(cell) && cell.kind !== 'avoid' && byNumber(SEQUENCE, measure)(cell)
  );
  return {
    cells: isLast(place) ? leadingCells(five, place) : five,
    goes: 'steps',
    standing: AGAIN,
    // It starts as low as it must to end where it is to.
    ...(at === 1 ? { isFree: true } : { way: { to: 1, against: STRICTLY } })
  };
};
/** A note repeated so that the end falls on the beat. */
const AGAIN = 1.5;
/** The tones of the cell that goes up: five to the octave. */
const SEQUENCE: readonly number[] = [1, 2, 3, 5, 6];

/** The tones of a figure from its second on, round and round; what is left over at the end leads on. */
function figure(place: SlotPlace): SlotWish {
  const { figure: own, at, count, pool, measure, next } = place;
  const size = own.tones.length;
  const whole = Math.floor(count / size) * size;
  const isOver = whole > 0 && at >= whole;
  const tone = own.tones[at % size]!;
  if (isOver || pool.length === 0) return arpeggio(place);
  const cells = cellsFor(tone, pool, measure);
  if (cells.length === 0) return arpeggio(place);
  const before = own.tones[(at + size - 1) % size]!;
  return {
    // The last of a figure steps on where it can; it stays what it is.
    cells,
    goes: next && at === count - 1 ? 'freely' : 'leaps',
    ...directionOf(before, tone),
    ...mustOf(before, tone)
  };
}

function cellsFor(tone: FigureTone, pool: readonly PoolCell[], measure: Measure): readonly PoolCell[] {
  if (tone === 'below') return pool;
  return pool.filter(tone === 'above' ? isAtHome : byNumber([tone], measure));
}

/** A figure rises where its numbers do, as far as the area lets it. */
function directionOf(before: FigureTone, tone: FigureTone): Pick<PlannedSlot, 'way'> {
  if (typeof before !== 'number' || typeof tone !== 'number' || before === tone) return {};
  return { way: { to: tone > before ? 1 : -1, against: STRICTLY } };
}

/** An enclosure: a step above its goal, then the semitone below it, then the goal. */
function mustOf(before: FigureTone, tone: FigureTone): Pick<PlannedSlot, 'must'> {
  if (tone === 'below') return { must: (from, to) => [2, 3].includes(from.midi - to.midi) };
  if (before === 'below') return { must: (from, to) => to.midi - from.midi === 1 };
  return {};
}

export const SLOT_LEVELS = {
  arpeggio: { density: 'open', phrase: 4, varies: true, wish: arpeggio },
  'arpeggio and scale': { density: 'full', phrase: 4, varies: true, wish: arpeggioAndScale },
  'without a stop': { density: 'full', phrase: 0, varies: true, wish: withoutStop },
  figure: { density: 'full', phrase: 0, wish: figure },
  sequence: { density: 'full', phrase: 0, wish: sequence }
} as const satisfies Readonly<Record<string, SlotLevel>>;

export const DEFAULT_FIGURE = FIGURES[0]!;
