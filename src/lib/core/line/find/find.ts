/**
 * Finding a line: for a rhythm, the cheapest line of a level through the target line, exactly, with the k best. It is on its target at
 * each targeted change and in its area; every note is of the choice, of the chord, or leads by a semitone; none sounds past its chord.
 * Source: docs/music-rules.md, Finding a line.
 */
import { nth, sure } from '../../base/list';
import type { Ticks } from '../../base/units';
import type { Meter } from '../../chart/model';
import type { Change, PlayedBar } from '../../chart/unroll';
import type { NamedTone } from '../../moment/moment';
import type { Instrument } from '../../neck/tuning';
import type { Target, TargetPath } from '../../targets/path';
import type { Chord } from '../../theory/chord';
import type { ApproachNotes } from '../approach-notes';
import {
  runCost,
  turnCost,
  wayCost,
  arrivalCost,
  handCost,
  harmonyCost,
  LINE_COSTS,
  motionCost,
  partsOf,
  seededCost,
  type LineParts,
  type PlannedSlot
} from './costs';
import { figureOf } from './figures';
import { waysThrough, type FoundWay } from '../lattice';
import { DEFAULT_FIGURE, SLOT_LEVELS, type SlotLevel } from './levels';
import { endOf, ticksOf, written, type LineNote } from '../model';
import { measureOf, type Measure } from '../move';
import { placeNotes, type PlacedNote } from '../place';
import { fingerAt } from '../../neck/position';
import type { FoundPhrase } from '../phrase/found';
import { poolOf, type LineArea, type PoolCell } from './pool';
import type { Ground } from '../read';
import { rhythmOver, type RhythmSlot } from './rhythm';

export interface FindWish {
  readonly ground: Ground;
  readonly meter: Meter;
  readonly neck: Instrument;
  /** Where the line lies at a change. */
  readonly areaOf: (change: number) => LineArea;
  /** The target line it lands on. */
  readonly path: TargetPath;
  /** What leads into the targets, where the player has said; by their places in the path. */
  readonly approaches: ApproachNotes;
  readonly figure?: string | undefined;
  /** Notes in a beat. */
  readonly perBeat: number;
  readonly feel: string | null;
  readonly seed: number;
  /** Bars of a phrase, at whose end the line breathes; as the level has it where nothing is said, 0 for never. */
  readonly phrase?: number | undefined;
  /** Changes, both in. */
  readonly from: number;
  readonly to: number;
  readonly alternatives: number;
}

export interface FoundLine {
  readonly notes: readonly LineNote[];
  readonly cost: number;
  readonly parts: Partial<LineParts> & { readonly repeated?: number };
  /** No other line in this rhythm is cheaper; of phrases: in this plan. */
  readonly exact: boolean;
  /** Where the hand is for each note, where that was decided with the pitches. */
  readonly hands?: readonly number[];
  /** The phrases it is made of. */
  readonly phrases?: readonly FoundPhrase[];
}

export interface FoundLines {
  readonly lines: readonly FoundLine[];
  /** Why there is none: the change, and what would give it. */
  readonly noLine?: { readonly change: number; readonly message: string };
}

/** A change of the range with all that a line may be made of there. */
export interface Stretch {
  readonly change: Change & { readonly chord: Chord };
  readonly from: number;
  readonly end: Ticks;
  readonly pool: readonly PoolCell[];
  readonly measure: Measure;
}

/** When a target sounds, in beats from the start of the form. */
export function startOf(target: Target, changes: readonly Change[]): number {
  return ticksOf(nth(changes, target.change).start + target.beat - 1);
}

/** The changes of the range that have a chord, each with its pool. */
export function stretchesOf({ ground, neck, areaOf, path, from, to }: FindWish): Stretch[] {
  const landed = new Map(path.targets.map((target) => [target.change, target.cell]));
  return ground.form.changes.slice(from, to + 1).flatMap((change): Stretch[] => {
    const { chord, index, start, beats } = change;
    if (!chord) return [];
    const choice = ground.chosen[index] ?? null;
    return [
      {
        change: { ...change, chord },
        from: ticksOf(start),
        end: ticksOf(start + beats),
        pool: poolOf(neck, areaOf(index), chord, choice, landed.get(index) ?? null),
        measure: measureOf(chord, choice)
      }
    ];
  });
}

/** Where a line lands: on a target, or on the first beat of a change that has none. */
export interface LandingPlace {
  readonly start: Ticks;
  /** Null where the change has no target. */
  readonly cell: NamedTone | null;
  /** Its place in the path. */
  readonly place: number | null;
}

/** Where the targets of a wish stand in its stretches. */
export function landingsOf({ ground, path }: FindWish, stretches: readonly Stretch[]): LandingPlace[] {
  const { changes } = ground.form;
  const within = new Map(stretches.map((stretch) => [stretch.change.index, stretch]));
  const targets = path.targets.flatMap((target, place): LandingPlace[] =>
    within.has(target.change) ? [{ start: startOf(target, changes), cell: target.cell, place }] : []
  );
  const known = new Set(targets.map(({ start }) => start));
  const others = stretches
    .filter(({ from }) => !known.has(from))
    .map(({ from }): LandingPlace => ({ start: from, cell: null, place: null }));
  return [...targets, ...others].sort((a, b) => a.start - b.start);
}

/** The bars that some stretches lie in. */
export function barsOf({ ground }: FindWish, stretches: readonly Stretch[]): PlayedBar[] {
  const [first, last] = [stretches[0], stretches.at(-1)];
  if (!first || !last) return [];
  return ground.form.bars.filter(
    ({ start, beats }) => ticksOf(start + beats) > first.from && ticksOf(start) < last.end
  );
}

/** Finds lines of a level that is filled slot by slot. */
export function findInSlots(level: keyof typeof SLOT_LEVELS, wish: FindWish): FoundLines {
  const stretches = stretchesOf(wish);
  const empty = stretches.find(({ pool }) => pool.length === 0);
  if (empty) return { lines: [], noLine: nothingThere(empty) };
  const own: SlotLevel = SLOT_LEVELS[level];
  const slots = slotsOf(own, wish, stretches);
  const strict = solved(slots, wish, stretches);
  // A figure that does not lie there as it is goes as well as it can.
  const found =
    level === 'figure' && strict.lines.length === 0
      ? solved(
          slots.map(({ must: _, ...slot }) => slot),
          wish,
          stretches
        )
      : strict;
  const bars = barsOf(wish, stretches);
  const repeats = found.lines.some(({ notes }) => repeatedBars(notes, bars) > 0);
  if (!own.varies || !repeats || slots.length > MOST_RANKED) return found;
  return { lines: ranked(solved(slots, { ...wish, alternatives: RANKED }, stretches).lines, bars, wish) };
}

/** Lines that are ranked by what no step can be charged for. */
const RANKED = 64;
/** Longer lines are taken as they are: so many of the best would take too long. */
const MOST_RANKED = 160;
/** What a bar costs that only repeats the one before. */
const REPEATED = 2;

/**
 * The best of some lines with fewest bars that repeat the one before. No neighbours can be charged for that, so that the order is that of
 * the lines ranked, and not proved for all.
 */
function ranked(
  lines: readonly FoundLine[],
  bars: readonly PlayedBar[],
  { alternatives }: Pick<FindWish, 'alternatives'>
): FoundLine[] {
  return lines
    .map((line) => {
      const repeated = REPEATED * repeatedBars(line.notes, bars);
      return { ...line, cost: line.cost + repeated, parts: { ...line.parts, repeated }, exact: false };
    })
    .sort((a, b) => a.cost - b.cost)
    .slice(0, alternatives);
}

/** How many bars have the notes and the rhythm of the one before. */
function repeatedBars(notes: readonly LineNote[], bars: readonly PlayedBar[]): number {
  const written = bars.map(({ start, beats }) => {
    const [from, to] = [ticksOf(start), ticksOf(start + beats)];
    return notes
      .filter((note) => note.start >= from && note.start < to)
      .map((note) => `${note.start - from}:${note.midi}`)
      .join();
  });
  return written.filter((bar, i) => bar !== '' && bar === written[i - 1]).length;
}

/** The cheapest ways through slots. */
export function solved(
  slots: readonly PlannedSlot[],
  wish: Pick<FindWish, 'seed' | 'alternatives'>,
  stretches: readonly Stretch[]
): FoundLines {
  const seeded = slots.map((_, i) => seededCost(wish.seed, i));
  const { ways, stuckAt } = waysThrough({
    slots: slots.map(({ cells }) => cells),
    own: (cell, i) =>
      harmonyCost(cell, nth(slots, i)) +
      (cell.isStretch ? LINE_COSTS.stretch : 0) +
      nth(seeded, i)(cell.midi),
    step: (from, to, i) => {
      const slot = nth(slots, i);
      return (
        motionCost(from, to, slot) +
        arrivalCost(from, to, slot) +
        handCost(from, to, slot) +
        wayCost(from, to, slot)
      );
    },
    turn: (from, way, i) => turnCost(from, way, nth(slots, i)),
    running: runCost,
    k: wish.alternatives
  });
  if (stuckAt !== undefined) return { lines: [], noLine: stuckIn(nth(slots, stuckAt), stretches) };
  return {
    lines: ways.map((way) => ({
      notes: notesOf(way, slots),
      cost: way.cost,
      parts: partsOf(way, slots, seeded),
      exact: true
    }))
  };
}

function nothingThere({ change }: Stretch) {
  return {
    change: change.index,
    message: `No note to play over ${change.symbol} lies in that part of the neck; allow more of it.`
  };
}

function stuckIn({ change }: PlannedSlot, stretches: readonly Stretch[]) {
  const symbol = stretches.find((one) => one.change.index === change)?.change.symbol ?? '';
  return {
    change,
    message: `There is no way through ${symbol} there that keeps to the level; allow more of the neck, or another target.`
  };
}

/** Every slot of the range, with what it is chosen from; in the level's rhythm unless another is given. */
export function slotsOf(
  level: SlotLevel,
  wish: FindWish,
  stretches: readonly Stretch[],
  given?: readonly RhythmSlot[]
): PlannedSlot[] {
  const landings = landingsOf(wish, stretches);
  const leads = given ? [] : leadsOf(wish, stretches);
  const rhythm =
    given ??
    rhythmOver(barsOf(wish, stretches), {
      density: level.density,
      perBeat: wish.perBeat,
      feel: wish.feel,
      seed: wish.seed,
      phrase: wish.phrase ?? level.phrase,
      struck: new Set([...landings.map(({ start }) => start), ...leads.map(({ start }) => start)]),
      leading: new Set(landings.map(({ start }) => start - slotLength(wish)))
    });
  const figure = figureOf(wish.figure ?? '') ?? DEFAULT_FIGURE;
  const isReverse = wish.figure === 'scale and arpeggio';
  const slots: PlannedSlot[] = [];
  stretches.forEach((stretch) => {
    const own = landings.filter(({ start }) => start >= stretch.from && start < stretch.end);
    own.forEach((landing, n) => {
      const following = own[n + 1] ?? landings.find(({ start }) => start >= stretch.end) ?? null;
      const end = own[n + 1]?.start ?? stretch.end;
      const within = rhythm.filter(({ start }) => start >= landing.start && start < end);
      const next = following?.start === end ? following.cell : null;
      const frame = {
        pool: stretch.pool,
        measure: stretch.measure,
        count: within.length,
        next,
        figure,
        perBeat: wish.perBeat,
        isReverse,
        isLoose: false
      };
      const landable =
        landing.cell && level.landing?.({ ...frame, start: landing.start, at: 0 }, landing.cell);
      within.forEach((moment, at) => {
        const clipped = { start: moment.start, length: Math.min(moment.length, stretch.end - moment.start) };
        const lead = leads.find(({ start }) => start === moment.start);
        const last = slots.at(-1);
        const isFree = last !== undefined && last.start + last.length < moment.start;
        const base = { ...clipped, change: stretch.change.index, isFree };
        const place = { ...frame, start: moment.start, at, isLoose: landable === null };
        if (at === 0) {
          const landed = landingSlot(base, landing, stretch);
          slots.push({
            ...landed,
            ...(landable ? { cells: landable } : {}),
            ...(last?.leadsUp && !isFree ? { must: isSemitoneUp } : {})
          });
        } else if (lead) slots.push(fixedSlot(base, lead));
        else {
          const own = level.wish(place);
          slots.push({ ...DEFAULTS, ...base, ...own, isFree: isFree || own.isFree === true });
        }
      });
    });
  });
  return slots;
}

const isSemitoneUp = (from: PoolCell, to: PoolCell) => to.midi - from.midi === 1;

const DEFAULTS = {
  lands: null,
  turning: LINE_COSTS.turn,
  standing: LINE_COSTS.standing,
  goes: 'freely'
} as const;

/** The length of one note of a run, in ticks. */
export const slotLength = ({ perBeat }: Pick<FindWish, 'perBeat'>) => ticksOf(1) / perBeat;

type BaseSlot = Pick<PlannedSlot, 'start' | 'length' | 'change' | 'isFree'>;

function landingSlot(base: BaseSlot, { cell }: LandingPlace, { pool }: Stretch): PlannedSlot {
  if (!cell) {
    return { ...DEFAULTS, ...base, cells: pool.filter(({ kind }) => kind !== 'chromatic'), lands: 'nearest' };
  }
  const own = pool.filter(({ midi, string }) => midi === cell.midi && string === cell.string);
  return { ...DEFAULTS, ...base, cells: own, lands: 'target' };
}

/** An approach note, where the line's area has it. */
export interface Lead extends RhythmSlot {
  readonly cell: PoolCell;
}

/** The approach notes into the targets of the range; of those that leave the area none of its target is kept. */
export function leadsOf(
  { approaches, ground }: Pick<FindWish, 'approaches' | 'ground'>,
  stretches: readonly Stretch[]
): Lead[] {
  const { changes } = ground.form;
  return [...approaches.values()].flatMap((into) => {
    const leads = into.flatMap((note): Lead[] => {
      const pool = stretches.find(({ change }) => change.index === note.change)?.pool ?? [];
      const same = pool.filter(({ midi }) => midi === note.midi);
      const cell = same.find(({ string }) => string === note.string) ?? same[0];
      const start = ticksOf(nth(changes, note.change).start + note.beat - 1);
      return cell ? [{ start, length: ticksOf(note.beats), cell }] : [];
    });
    return leads.length === into.length ? leads : [];
  });
}

function fixedSlot(base: BaseSlot, { cell }: Lead): PlannedSlot {
  return { ...DEFAULTS, ...base, cells: [{ ...cell, kind: 'choice' }] };
}

function notesOf({ cells }: FoundWay<PoolCell>, slots: readonly PlannedSlot[]): LineNote[] {
  return cells.map((cell, i): LineNote => {
    const { start, length, lands } = nth(slots, i);
    const next = slots[i + 1];
    const leads =
      next?.lands === 'target' &&
      Math.abs(nth(cells, i + 1).midi - cell.midi) === 1 &&
      next.start === start + length;
    return written(cell, start, length, lands === 'target' ? 'target' : leads ? 'approach' : 'run');
  });
}

/** Notes one after another: none lasts into the next. */
export function withoutOverlap(notes: readonly LineNote[]): LineNote[] {
  return notes.map((note, i) => {
    const next = notes.slice(i + 1).find(({ start }) => start > note.start);
    return next && endOf(note) > next.start ? { ...note, length: next.start - note.start } : note;
  });
}

/** A found line with fingers and hands: in the position it is bound to, else where the hand has it easiest. */
export function fingered(
  notes: readonly LineNote[],
  neck: Instrument,
  areaAt: (note: LineNote) => LineArea
): readonly PlacedNote[] {
  const positions = notes.map((note) => areaAt(note).position);
  const free = positions.every((position) => position !== undefined)
    ? undefined
    : placeNotes(notes, { neck, keepsPlaces: true, alternatives: 1 }).places[0]?.notes;
  return notes.map((note, i): PlacedNote => {
    const { string, fret } = sure(note.place, 'the place of a found note');
    const position = positions[i] ?? free?.[i]?.position ?? Math.max(neck.capo + 1, fret);
    const finger =
      (positions[i] === undefined && free?.[i]?.place.finger) || fingerAt(fret, position, neck.capo);
    return { ...note, place: { string, fret, finger }, position };
  });
}
