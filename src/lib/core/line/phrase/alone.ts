/**
 * One phrase of a line made anew while the others stand: new in its bars, or after another one, note for note, varied, in its rhythm, or
 * moved as a sequence. Also what keeps new phrases off those that stand. Source: docs/music-rules.md, Phrases, One by one.
 */
import { nth, sure } from '../../base/list';
import type { Ticks } from '../../base/units';
import { spots, type Instrument, type Spot } from '../../neck/tuning';
import { chanceOf } from '../chance';
import type { Stretch } from '../edit';
import { endOf, type LineNote } from '../model';
import { frettedPitch } from '../place';
import { barAt, pulseAt, pushAt, type Grid, type GridChange } from './grid';
import { highestHand, lowestHand } from './hand';
import type { FoundPhrases, SolvedPhrase } from './found';
import { planAlone, type PlanWish } from './plan';
import { rhythmAlone, type PhraseRhythm, type RhythmWish, type Strike } from './rhythm';
import type { PhraseRow, Relation } from './styles';

export interface OnePhrase {
  /** Bars of the range, from 0. */
  readonly first: number;
  readonly bars: number;
  /** Where it lies in the whole solo, 0 to 1. */
  readonly part: number;
  /** Ticks: nothing of it sounds outside. */
  readonly room: Stretch;
  /** What it takes up; it is new where there is nothing. */
  readonly like?:
    | {
        readonly notes: readonly LineNote[];
        /** Its first bar of the range. */
        readonly first: number;
        readonly how: Relation;
        /** Ticks later than bar for bar. */
        readonly by?: number | undefined;
      }
    | undefined;
}

/** A phrase has at least so many notes. */
const FEWEST = 3;
/** Rhythms that are drawn for one phrase before it is given up. */
const TRIES = 12;
/** Frets above a position that a hand reaches. */
const REACH = 4;

/** The notes of a phrase that somebody else made, as if they had been solved. */
export function modelFrom(
  { like, bars }: OnePhrase,
  {
    grid,
    neck,
    row,
    changes
  }: Pick<RhythmWish, 'grid' | 'changes'> & {
    readonly neck: Instrument;
    readonly row: PhraseRow;
  }
): SolvedPhrase {
  const { notes, first } = sure(like, 'the phrase that is like another');
  // Of two notes at once the upper one is the line.
  const line = notes.filter((note, i) => notes[i + 1]?.start !== note.start);
  const strikes = line.map((note): Strike => ({
    start: note.start,
    length: note.length,
    isGhost: note.ghost === true,
    ahead: aheadOf(note, grid, changes, row),
    leans: false,
    repeats: false,
    isPinned: false
  }));
  const position = handUnder(line, neck);
  const struck = line.filter(({ ghost }) => !ghost);
  const rhythm: PhraseRhythm = {
    index: 0,
    plan: {
      first,
      bars,
      start: 'one',
      model: null,
      contour: 'arch',
      isAnswer: false,
      density: row.fill,
      height: 0
    },
    strikes
  };
  return {
    rhythm,
    strikes: strikes.filter(({ isGhost }) => !isGhost),
    way: { places: struck.map((note) => spotOf(note, neck, position)), cost: 0 },
    position
  };
}

/** How far before a change or bar line a note comes that belongs to it; 0 for one that does not. */
function aheadOf(
  note: LineNote,
  grid: Grid,
  changes: readonly GridChange[],
  { isFine }: Pick<PhraseRow, 'isFine'>
): number {
  const moments = [...grid.bars.map(({ start }) => start), ...changes.map(({ start }) => start)];
  const at = moments.find((moment) => {
    const ahead = moment - note.start;
    return ahead > 0 && ahead <= pushAt(grid, moment, isFine === true) && endOf(note) > moment;
  });
  return at === undefined ? 0 : at - note.start;
}

/** A position in which the notes lie, as well as one hand can have them. */
function handUnder(notes: readonly LineNote[], neck: Instrument): number {
  const frets = notes.flatMap(({ place }) => (place && place.fret > neck.capo ? [place.fret] : []));
  if (frets.length === 0) return lowestHand(neck);
  const [low, high] = [Math.min(...frets), Math.max(...frets)];
  const near = high - low > REACH ? high - REACH : low;
  return Math.max(lowestHand(neck), Math.min(highestHand(neck), near));
}

/** Where a note sounds, which for a bent one is above where it is fretted. */
function spotOf(note: LineNote, neck: Instrument, position: number): Spot {
  const { midi, place } = note;
  if (place) return { string: place.string, fret: place.fret + midi - frettedPitch(note), midi };
  const near = spots(neck, Math.max(neck.capo, position - 1), position + REACH).find(
    (spot) => spot.midi === midi
  );
  return near ?? { string: 1, fret: 0, midi };
}

interface AloneFrame {
  readonly planned: Omit<PlanWish, 'chance'>;
  readonly rhythmic: Omit<RhythmWish, 'chance'>;
  readonly seed: number;
  /** Leaves what can be heard. */
  readonly heardIn: (strikes: readonly Strike[]) => readonly Strike[];
}

/** The rhythm of the one phrase within its room; null where nothing of three notes fits there. */
export function strikesAlone(
  only: OnePhrase,
  model: SolvedPhrase | null,
  { planned, rhythmic, seed, heardIn }: AloneFrame
): PhraseRhythm | null {
  const { first, bars, part, room, like } = only;
  for (let turn = 0; turn < TRIES; turn++) {
    const chance = chanceOf(seed, 7, turn);
    const alone = planAlone({ ...planned, chance }, first, bars, part);
    const plan = like ? { ...alone, bars, model: { of: 0, how: like.how, by: like.by ?? 0 } } : alone;
    if (first + plan.bars > planned.bars) return null;
    const drawn = rhythmAlone(plan, model?.rhythm ?? null, { ...rhythmic, chance });
    if (!drawn) return null;
    const strikes = heardIn(within(drawn, room));
    const wanted = like && model ? Math.min(FEWEST, model.strikes.length) : FEWEST;
    if (strikes.filter(({ isGhost }) => !isGhost).length >= Math.max(1, wanted))
      return { index: 1, plan, strikes };
    if (like && like.how !== 'varied') return null;
  }
  return null;
}

const within = (strikes: readonly Strike[], { from, to }: Stretch): Strike[] =>
  strikes
    .filter(({ start }) => start >= from && start < to)
    .map((strike) => ({ ...strike, length: Math.min(strike.length, to - strike.start) }));

/**
 * Where a phrase says another one note for note, what comes out the same is also played the same: on its string, with its bends and slurs
 * where the note before is the same too. A lower note beside it comes along where the chord has it.
 */
export function asModelled(
  found: FoundPhrases,
  { like, first }: OnePhrase,
  { grid, tonesAt }: { readonly grid: Grid; readonly tonesAt: (ticks: Ticks) => readonly number[] }
): FoundPhrases {
  if (like?.how !== 'literal') return found;
  const moved = nth(grid.bars, first).start - nth(grid.bars, like.first).start + (like.by ?? 0);
  const upper = like.notes.filter((note, i) => like.notes[i + 1]?.start !== note.start);
  const notes: LineNote[] = [];
  const hands: number[] = [];
  let wasSame = false;
  for (const [i, made] of found.notes.entries()) {
    const hand = nth(found.hands, i);
    // What is struck beside the line was drawn anew.
    if (found.notes[i + 1]?.start === made.start) continue;
    const own = upper.find(({ start }) => start + moved === made.start);
    if (!own || own.midi !== made.midi) {
      notes.push(made);
      hands.push(hand);
      wasSame = false;
      continue;
    }
    const isJoined = wasSame || (!own.slide && !own.slur);
    const { slide, slur, ...plain } = own;
    const lower = like.notes.find((note) => note !== own && note.start === own.start);
    if (lower && tonesAt(made.start).includes(lower.midi % 12)) {
      notes.push({ ...lower, start: made.start, length: made.length });
      hands.push(hand);
    }
    notes.push({
      ...plain,
      ...(isJoined && slide ? { slide } : {}),
      ...(isJoined && slur ? { slur } : {}),
      start: made.start,
      length: made.length,
      note: made.note
    });
    hands.push(hand);
    wasSame = true;
  }
  return { ...found, notes, hands };
}

/** Bars in which something of some stretches stands; one that only leads into a bar does not take the bar before. */
export function barsOf(held: readonly Stretch[], grid: Grid): ReadonlySet<number> {
  const taken = new Set<number>();
  for (const { from, to } of held) {
    const begin = barAt(grid, from);
    const isPickup =
      begin + 1 < grid.bars.length && to > nth(grid.bars, begin + 1).start && from > halfOf(grid, begin);
    for (let bar = isPickup ? begin + 1 : begin; bar <= barAt(grid, to - 1); bar++) taken.add(bar);
  }
  return taken;
}

const halfOf = ({ bars }: Grid, bar: number) => (nth(bars, bar).start + nth(bars, bar).end) / 2 - 1;

/** Keeps a beat of silence between new notes and what stands (two eighths where three make a beat). */
export function besideHeld(
  strikes: readonly Strike[],
  held: readonly Stretch[],
  grid: Grid
): readonly Strike[] {
  if (held.length === 0) return strikes;
  return strikes.flatMap((strike) => {
    const { length: pulse, isTriple } = pulseAt(grid, strike.start);
    const beat = isTriple ? (2 * pulse) / 3 : pulse;
    const isNear = ({ from, to }: Stretch) => strike.start >= from - beat && strike.start < to + beat;
    if (held.some(isNear)) return [];
    const next = held.find(({ from }) => from > strike.start);
    const length = next ? Math.min(strike.length, next.from - beat - strike.start) : strike.length;
    return [{ ...strike, length }];
  });
}
