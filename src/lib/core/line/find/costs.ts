/** What a line is charged for. Data, not law. Source: docs/music-rules.md, Finding a line. */
import { entryOf, nth, numberAt } from '../../base/list';
import type { Midi, Ticks } from '../../base/units';
import { chanceOf } from '../chance';
import { TICKS } from '../model';
import type { FoundWay, Way } from '../lattice';
import type { PoolCell } from './pool';

/** One note to be found. */
export interface PlannedSlot {
  /** In ticks. */
  readonly start: Ticks;
  readonly length: Ticks;
  readonly change: number;
  readonly cells: readonly PoolCell[];
  /** It is a target, or starts a change that has none. */
  readonly lands: 'target' | 'nearest' | null;
  /** Silence comes before it: neither leap nor turn counts. */
  readonly isFree: boolean;
  /** The direction it would rather be reached in, and what the other one costs. */
  readonly way?: { readonly to: Way; readonly against: number };
  /** By neighbours, by leaps of an arpeggio, or anyhow. */
  readonly goes: 'steps' | 'leaps' | 'freely';
  /** What turning costs away from the edge. */
  readonly turning: number;
  /** What the same pitch once more costs. */
  readonly standing: number;
  /** What follows lies a semitone above it. */
  readonly leadsUp?: true;
  /** What must hold between the note before and this one. */
  readonly must?: (from: PoolCell, to: PoolCell) => boolean;
}

export const LINE_COSTS = {
  /** For each semitone further than a leap of an arpeggio goes, and than a step of a scale. */
  leap: 0.25,
  wide: 0.5,
  /** For each tone of the slot that a step leaves out. */
  skipped: { steps: 1, leaps: 0.6, freely: 0 },
  turn: 0.8,
  turnAtEdge: 0.1,
  standing: 4,
  /** For each note beyond eight one way. */
  tooLong: 0.3,
  /** On a beat, and off it. */
  avoid: { on: 3, off: 0.4 },
  nonChord: { on: 0.5, off: 0 },
  chromatic: 0.3,
  /** Into a target: by a step, from the pitch itself, from further for each semitone. */
  arrival: { step: 0.2, same: 3, far: 0.4 },
  /** To a change without a target, for each semitone more than a step. */
  unled: 0.5,
  stretch: 0.25,
  skippedString: 0.3,
  /** For each fret the hand moves. */
  shift: 0.4,
  /** How much a seed may move a note, at most. */
  seed: 0.7
} as const;

/** Semitones: of a leap in an arpeggio, and the widest a run takes without paying more. */
const ARPEGGIO_LEAP = 5;
const WIDEST_STEP = 7;
const STEP = 2;
const WIDEST_LEAP = 19;
/** Frets under the hand without moving it. */
const UNDER_HAND = 3;
const FREE_RUN = 8;

export interface LineParts {
  readonly harmony: number;
  readonly motion: number;
  readonly direction: number;
  readonly arrival: number;
  readonly hand: number;
  readonly seed: number;
}

/** What a note costs by what it is over its chord and where it stands. */
export function harmonyCost({ kind }: PoolCell, { start, lands }: PlannedSlot): number {
  if (lands === 'target') return 0;
  const when = start % TICKS === 0 ? 'on' : 'off';
  if (kind === 'avoid') return LINE_COSTS.avoid[when];
  if (kind === 'choice') return LINE_COSTS.nonChord[when];
  return kind === 'chromatic' ? LINE_COSTS.chromatic + LINE_COSTS.nonChord[when] : 0;
}

/** What the step from one note to the next costs by its size. */
export function motionCost(from: PoolCell, to: PoolCell, slot: PlannedSlot): number {
  const interval = Math.abs(to.midi - from.midi);
  if (slot.isFree) return 0;
  if (interval === 0) return slot.standing;
  const skipped = LINE_COSTS.skipped[slot.goes] * cellsBetween(from.midi, to.midi, slot.cells);
  if (slot.goes === 'leaps') return skipped + LINE_COSTS.leap * Math.max(0, interval - ARPEGGIO_LEAP);
  return skipped + LINE_COSTS.wide * Math.max(0, interval - WIDEST_STEP);
}

/** The pitches a slot is chosen from. */
interface Pitches {
  /** How many of them lie under each MIDI number. */
  readonly under: Uint8Array;
  readonly low: number;
  readonly high: number;
}

const MIDI_NUMBERS = 129;
const known = new WeakMap<readonly PoolCell[], Pitches>();

function pitchesOf(cells: readonly PoolCell[]): Pitches {
  let pitches = known.get(cells);
  if (!pitches) {
    const own = new Set(cells.map(({ midi }) => midi));
    const under = new Uint8Array(MIDI_NUMBERS);
    for (let midi = 1; midi < MIDI_NUMBERS; midi++)
      under[midi] = numberAt(under, midi - 1) + (own.has(midi - 1) ? 1 : 0);
    pitches = { under, low: Math.min(...own), high: Math.max(...own) };
    known.set(cells, pitches);
  }
  return pitches;
}

/** Pitches of a slot between two. */
function cellsBetween(a: number, b: number, cells: readonly PoolCell[]): number {
  const { under } = pitchesOf(cells);
  return a < b ? numberAt(under, b) - numberAt(under, a + 1) : numberAt(under, a) - numberAt(under, b + 1);
}

/** Infinity where a chromatic note does not lead by a semitone into what follows, or a leap is wider than any line's. */
export function arrivalCost(from: PoolCell, to: PoolCell, slot: PlannedSlot): number {
  const interval = Math.abs(to.midi - from.midi);
  if (interval > WIDEST_LEAP && !slot.isFree) return Infinity;
  if (from.kind === 'chromatic' && interval !== 1 && !slot.must) return Infinity;
  if (slot.must && !slot.must(from, to)) return Infinity;
  if (slot.isFree || !slot.lands) return 0;
  if (slot.lands === 'nearest') return LINE_COSTS.unled * Math.max(0, interval - STEP);
  const { step, same, far } = LINE_COSTS.arrival;
  if (interval === 0) return same;
  if (interval === 1) return 0;
  return interval === STEP ? step : far * interval;
}

/** What the hand is charged for from one place to the next; less after silence. */
export function handCost(from: PoolCell, to: PoolCell, { isFree }: PlannedSlot): number {
  const strings = Math.max(0, Math.abs(to.string - from.string) - 1);
  const frets = Math.max(0, Math.abs(to.fret - from.fret) - UNDER_HAND);
  return LINE_COSTS.skippedString * strings + (isFree ? 0 : LINE_COSTS.shift * frets);
}

/** What it costs to turn round at a note. */
export function turnCost(from: PoolCell, way: Way, slot: PlannedSlot): number {
  if (slot.isFree) return 0;
  const { low, high } = pitchesOf(slot.cells);
  const isEdge = way === 1 ? from.midi >= high : from.midi <= low;
  return isEdge ? LINE_COSTS.turnAtEdge : slot.turning;
}

/** What it costs to go on one way for so many notes. */
export function runCost(run: number): number {
  return run > FREE_RUN ? LINE_COSTS.tooLong : 0;
}

/** What it costs to go against the way that is asked for. */
export function wayCost(from: PoolCell, to: PoolCell, { way, isFree }: PlannedSlot): number {
  if (!way || isFree || from.midi === to.midi) return 0;
  return Math.sign(to.midi - from.midi) === way.to ? 0 : way.against;
}

/** How a seed moves the cells of a slot. */
export function seededCost(seed: number, slot: number): (midi: Midi) => number {
  if (seed === 0) return () => 0;
  const known = new Map<number, number>();
  return (midi) => {
    if (!known.has(midi)) known.set(midi, LINE_COSTS.seed * chanceOf(seed, slot, midi)());
    return entryOf(known, midi);
  };
}

/** The cost of a line part by part; together they are its cost. */
export function partsOf(
  { cost, cells }: FoundWay<PoolCell>,
  slots: readonly PlannedSlot[],
  seeded: readonly ((midi: Midi) => number)[]
): LineParts {
  const sum = (of: (to: PoolCell, slot: PlannedSlot, from: PoolCell | undefined, i: number) => number) =>
    cells.reduce((total, to, i) => total + of(to, nth(slots, i), cells[i - 1], i), 0);
  const between = (of: (from: PoolCell, to: PoolCell, slot: PlannedSlot) => number) =>
    sum((to, slot, from) => (from ? of(from, to, slot) : 0));
  const parts = {
    harmony: sum((to, slot) => harmonyCost(to, slot)),
    motion: between(motionCost),
    arrival: between(arrivalCost),
    hand: between(handCost) + sum(({ isStretch }) => (isStretch ? LINE_COSTS.stretch : 0)),
    seed: sum(({ midi }, _, __, i) => nth(seeded, i)(midi))
  };
  const rest = Object.values(parts).reduce((total, part) => total + part, 0);
  return { ...parts, direction: cost - rest };
}
