/**
 * The pitches of a phrase: for its rhythm, the cheapest way through the places under a hand, exactly, with the k best. A cost may depend on
 * two neighbours, on the direction and how long it has been kept, on a leap before, on how often a pitch was said, and on which tones of the
 * chord were shown. Source: docs/music-rules.md, Phrases, Pitch.
 */
import { firstOf, lastOf, nth } from '../../base/list';
import type { Midi, PitchClass, Ticks } from '../../base/units';
import type { Spot } from '../../neck/tuning';
import type { Sounds } from './sounds';
import type { Idiom, PhraseRow } from './styles';

/** A step into a slot that a figure asks for: any of these, in semitones. */
export type AskedSteps = readonly number[];

/** A note to be given a pitch. */
export interface PitchSlot {
  readonly length: Ticks;
  readonly sounds: Sounds;
  /** Where it stands: on a strong pulse, another pulse, or off it. */
  readonly accent: 'strong' | 'weak' | 'off';
  /** It lasts a pulse or longer. */
  readonly isLong: boolean;
  /** At most half a pulse. */
  readonly isShort: boolean;
  /** Much shorter than half a pulse. */
  readonly isFast: boolean;
  /** It meets a change. */
  readonly lands: boolean;
  readonly leans: boolean;
  readonly repeats: boolean;
  readonly isLast: boolean;
  /** There is silence before it. */
  readonly isFree: boolean;
  /** A figure leads into it. */
  readonly steps: AskedSteps | null;
  /** Pitch classes that a figure allows it, an entry for each of the twelve. */
  readonly only: readonly boolean[] | null;
  /** It stands inside a figure: turning is free, and leaping where the figure says of which notes it is made. */
  readonly isInFigure: boolean;
  /** Where the line wishes to be (MIDI number). */
  readonly centre: number;
  /** The pitch that the phrase it takes up has here, and what a semitone away from it costs. */
  readonly model: { readonly midi: Midi; readonly weight: number } | null;
  /** The step that the phrase it takes up makes here. */
  readonly modelStep: number | null;
  /** The player has it here. */
  readonly pinned: number | null;
  /** Notes of the phrase on this chord: the fewer, the less is asked of them. */
  readonly onChord: number;
}

export interface PitchProblem {
  readonly slots: readonly PitchSlot[];
  /** One place for a pitch, ascending. */
  readonly places: readonly Spot[];
  readonly row: PhraseRow;
  /** A little chance for a note at a place, at least 0. */
  readonly seeded: (slot: number, midi: Midi) => number;
  readonly k: number;
}

export interface PitchWay {
  readonly cost: number;
  /** A place for each slot. */
  readonly places: readonly Spot[];
}

const OCTAVE = 12;
const FOURTH = 5;
const FARTHEST = 11;
/** How far from its wish a line may be before it is charged. */
const ROOM = 2.5;
const HIGHEST = 81;
const LOWEST = 53;
const MOST_REPEATS = 2;

const STEP_COST = [0, 0, 0, 0.15, 0.25, 0.45, 1.2, 0.7, 0.9, 0.9, 1.5, 2.5, 1.2];

/** What a slot costs at a place, whatever stands beside it; Infinity forbids. */
export function ownCost(slot: PitchSlot, { midi }: Spot, row: PhraseRow): number {
  if (slot.pinned !== null) return midi === slot.pinned ? 0 : Infinity;
  const pc = midi % OCTAVE;
  if (slot.only && !slot.only[pc]) return Infinity;
  const kind = slot.sounds.kinds[pc]!;
  const away = Math.abs(midi - slot.centre);
  if (away > FARTHEST) return Infinity;
  let cost = 0.2 * Math.max(0, away - ROOM);
  if (midi > HIGHEST) cost += 0.3 * (midi - HIGHEST);
  if (midi < LOWEST) cost += 0.3 * (LOWEST - midi);
  cost += slot.leans
    ? leaningCost(kind) + (slot.sounds.home[pc] ? 0 : LEANS_ABROAD)
    : slot.lands
      ? landingCost(slot, pc, row)
      : placeCost(slot, kind, row);
  if (slot.isLong) cost += longCost(slot, pc, kind);
  if (slot.isLast) cost += lastCost(slot, pc, kind);
  if (slot.model) cost += slot.model.weight * Math.min(4, Math.abs(midi - slot.model.midi));
  return cost;
}

type Kind = Sounds['kinds'][number];

/** What it costs more to lean on a note that the key has not. */
const LEANS_ABROAD = 1.2;

const leaningCost = (kind: Kind) =>
  ({ chord: 0.6, penta: 0, scale: 0, blue: 0.2, avoid: 0.2, chromatic: 1.2 })[kind];

function landingCost({ sounds }: PitchSlot, pc: PitchClass, { root, hangs }: PhraseRow): number {
  const kind = sounds.kinds[pc]!;
  switch (sounds.ranks[pc]!) {
    case 'third':
      return 0;
    case 'seventh':
      return 0.15;
    case 'fifth':
      return 0.5;
    case 'root':
      return root;
    case 'other tone':
      return 0.4;
    case 'sixth or ninth':
      return kind === 'penta' ? Math.max(0.9, hangs) : 1.1;
    default:
      return kind === 'penta' ? Math.max(0.9, hangs) : kind === 'blue' ? 0.7 : Infinity;
  }
}

function placeCost(
  { accent, isShort }: PitchSlot,
  kind: Kind,
  { isChromatic, idiom, hangs }: PhraseRow
): number {
  if (kind === 'chromatic') return isChromatic && accent === 'off' && isShort ? 0.55 : Infinity;
  if (accent === 'off') {
    if (kind === 'avoid') return 0.35;
    return kind === 'scale' && idiom === 'pentatonic' ? 0.3 : 0;
  }
  switch (kind) {
    case 'chord':
      return 0;
    case 'penta':
      return hangs;
    case 'blue':
      return idiom === 'pentatonic' ? 0.5 : 1.4;
    case 'avoid':
      return 3;
    default:
      return accent === 'strong' ? 1.3 : 0.9;
  }
}

function longCost({ sounds, leans }: PitchSlot, pc: PitchClass, kind: Kind): number {
  if (leans || kind === 'chord') return 0;
  if (kind === 'avoid') return 6;
  if (kind === 'chromatic') return Infinity;
  if (sounds.ranks[pc] === 'sixth or ninth' || kind === 'penta') return 0.5;
  return kind === 'blue' ? 1 : 1.5;
}

function lastCost({ sounds }: PitchSlot, pc: PitchClass, kind: Kind): number {
  if (kind === 'avoid' || kind === 'chromatic') return Infinity;
  if (kind === 'chord') return 0;
  return kind === 'penta' || sounds.ranks[pc] === 'sixth or ninth' ? 0.5 : 2.5;
}

/** What a step into a slot costs, whatever came before. */
export function stepCost(before: PitchSlot, from: Spot, slot: PitchSlot, to: Spot, row: PhraseRow): number {
  const step = to.midi - from.midi;
  const size = Math.abs(step);
  if (slot.steps && !slot.steps.includes(step)) return Infinity;
  if (before.leans && (size < 1 || size > 2)) return Infinity;
  if (size > OCTAVE) return Infinity;
  if (isFallingThird(before, from, slot, to, row)) return Infinity;
  let cost = 0;
  if (size === 0) cost = slot.repeats ? 0 : row.same;
  else {
    if (slot.repeats) cost += 1.5;
    cost += sizeCost(before, from, slot, to, row, size);
    const crossed = Math.abs(to.string - from.string);
    if (crossed > 1) cost += (before.isFast ? 0.6 : 0.3) * (slot.isFree ? 0.3 : 1) * (crossed - 1);
  }
  if (slot.lands && !slot.isFree) {
    if (size === 1) cost -= 0.25;
    else if (size > 2) cost += size <= 4 ? 0.15 : 0.35;
  }
  if (isRisingThird(before, from, slot, to)) cost -= 0.6;
  if (slot.modelStep !== null) cost += 0.9 * Math.min(4, Math.abs(step - slot.modelStep));
  return cost;
}

function sizeCost(
  before: PitchSlot,
  from: Spot,
  slot: PitchSlot,
  to: Spot,
  { idiom }: PhraseRow,
  size: number
): number {
  const { kinds } = slot.sounds;
  const [a, b] = [kinds[from.midi % OCTAVE]!, kinds[to.midi % OCTAVE]!];
  const isOfChord = size >= 3 && size <= FOURTH && a === 'chord' && b === 'chord';
  const isPentatonic = size === 3 && idiom === 'pentatonic';
  const plain = isOfChord || isPentatonic ? 0 : STEP_COST[size]!;
  return plain * (size > 4 && before.isFast ? 2 : 1) * (slot.isFree ? 0.3 : 1);
}

const isThird = (slot: PitchSlot, { midi }: Spot, which: 'minor' | 'major') =>
  slot.sounds.thirds?.[which] === midi % OCTAVE;

/** From the major third to the minor one over one chord, as no blues has it; where it passes chromatically it may. */
function isFallingThird(
  before: PitchSlot,
  from: Spot,
  slot: PitchSlot,
  to: Spot,
  { rises }: PhraseRow
): boolean {
  const isOneChord = before.sounds.chord.symbol === slot.sounds.chord.symbol;
  if (!rises || !isOneChord || from.midi - to.midi !== 1) return false;
  const passes = slot.sounds.kinds[to.midi % OCTAVE] === 'chromatic';
  return !passes && isThird(slot, from, 'major') && isThird(slot, to, 'minor');
}

function isRisingThird(before: PitchSlot, from: Spot, slot: PitchSlot, to: Spot): boolean {
  return (
    before.isShort && to.midi - from.midi === 1 && isThird(slot, from, 'minor') && isThird(slot, to, 'major')
  );
}

/*
 * The state beside the place: which way the line goes (not yet, up, down), for how many notes, whether it has just leapt, how often the pitch
 * was said before, and which of root, third and seventh were shown.
 */
const DIRECTIONS = 3;
const RUNS = 4;
const LEAPS = 3;
const SAID = 3;
const SHOWN = 8;
const STATES = DIRECTIONS * RUNS * LEAPS * SAID * SHOWN;

/** A run of one note that came of turning after one note. */
const SHUTTLING = 0;

const TURN: Readonly<Record<Idiom, readonly number[]>> = {
  chords: [2.4, 1, 0.25, 0.05],
  pentatonic: [1.8, 0.6, 0.25, 0.05]
};

/** The tones that tell a chord: their bit of the state, and what it costs to leave a chord without having shown them. */
const TELLING = {
  root: { bit: 1, cost: 0.45 },
  third: { bit: 2, cost: 1.5 },
  seventh: { bit: 4, cost: 0.7 }
} as const;
const TELLING_RANKS = Object.keys(TELLING) as (keyof typeof TELLING)[];

/** What was not shown of a chord that the line leaves. */
export function hiddenCost(shown: number, { sounds, onChord }: PitchSlot, { showing }: PhraseRow): number {
  let cost = 0;
  for (const rank of TELLING_RANKS)
    if (sounds.ranks.includes(rank) && !(shown & TELLING[rank].bit)) cost += TELLING[rank].cost;
  return cost * Math.min(1, onChord / 4) * showing;
}

function shownBy({ sounds }: PitchSlot, { midi }: Spot): number {
  const rank = sounds.ranks[midi % OCTAVE]!;
  return Object.hasOwn(TELLING, rank) ? TELLING[rank as keyof typeof TELLING].bit : 0;
}

/** The state after a step, and what the step costs because of what came before it. */
function moved(
  state: number,
  before: PitchSlot,
  from: Spot,
  slot: PitchSlot,
  to: Spot,
  row: PhraseRow
): { readonly state: number; readonly cost: number } {
  const shown = state % SHOWN;
  const said = Math.floor(state / SHOWN) % SAID;
  const leapt = Math.floor(state / (SHOWN * SAID)) % LEAPS;
  const run = Math.floor(state / (SHOWN * SAID * LEAPS)) % RUNS;
  const direction = Math.floor(state / (SHOWN * SAID * LEAPS * RUNS));
  const step = to.midi - from.midi;
  const way = step > 0 ? 1 : step < 0 ? 2 : 0;
  let cost = 0;

  // A chromatic note is left by a semitone the way it was reached, or into a landing.
  if (before.sounds.kinds[from.midi % OCTAVE] === 'chromatic' && !before.leans && before.pinned === null) {
    const isOn = way !== 0 && (way === direction || slot.lands || slot.isInFigure);
    if (Math.abs(step) !== 1 || !isOn) return { state, cost: Infinity };
  }

  let nextSaid = 0;
  if (step === 0) {
    if (said >= MOST_REPEATS) return { state, cost: Infinity };
    nextSaid = said + 1;
    if (!slot.repeats) cost += row.same * 1.2 * said;
  }

  const turns = way !== 0 && direction !== 0 && way !== direction;
  let nextRun = run;
  if (way !== 0) {
    if (turns) {
      if (!slot.isInFigure && !slot.isFree) cost += TURN[row.idiom][run]!;
      nextRun = run <= 1 ? SHUTTLING : 1;
    } else nextRun = direction === 0 ? 1 : Math.min(RUNS - 1, Math.max(1, run) + 1);
  }

  if (leapt !== 0 && way !== 0 && !slot.isFree && !(slot.isInFigure && slot.only)) {
    if (way === leapt) cost += Math.abs(step) <= 2 ? 0.4 : 1.3;
    if (Math.abs(step) >= FOURTH) cost += 0.6;
  }
  const nextLeapt = Math.abs(step) >= FOURTH ? way : 0;

  const isOther = slot.sounds !== before.sounds;
  if (isOther) cost += hiddenCost(shown, before, row);
  const nextShown = (isOther ? 0 : shown) | shownBy(slot, to);
  const nextDirection = way === 0 ? direction : way;
  return {
    state: (((nextDirection * RUNS + nextRun) * LEAPS + nextLeapt) * SAID + nextSaid) * SHOWN + nextShown,
    cost
  };
}

/** The state in which a phrase begins: no direction yet, one note long. */
const first = (slot: PitchSlot, place: Spot) => LEAPS * SAID * SHOWN + shownBy(slot, place);

/** States by slot, with where each came from. */
interface Layer {
  readonly keys: number[];
  readonly costs: number[];
  /** The place in the layer before. */
  readonly origins: number[];
}

/** How much dearer than the best a way may be in the first, narrow look. */
const NARROW = 0.8;
const HAIR = 1e-9;

/**
 * The cheapest ways. First a lower bound of what is still to come, from costs of neighbours alone; then a narrow look for a way that is
 * good; then all states that may still beat it. None where some slot has no place, or no way leads through.
 */
export function pitchWays({ slots, places, row, seeded, k }: PitchProblem): PitchWay[] {
  if (slots.length === 0) return [{ cost: 0, places: [] }];
  const count = places.length;
  const own = slots.map((slot, i) =>
    Float64Array.from(places, (place) => {
      const cost = ownCost(slot, place, row);
      return cost === Infinity ? cost : cost + seeded(i, place.midi);
    })
  );
  const pairs = slots.map((slot, i) => {
    if (i === 0) return new Float64Array();
    const before = nth(slots, i - 1);
    const [last, here] = [nth(own, i - 1), nth(own, i)];
    const table = new Float64Array(count * count).fill(Infinity);
    for (let a = 0; a < count; a++) {
      if (last[a] === Infinity) continue;
      for (let b = 0; b < count; b++) {
        if (here[b] === Infinity) continue;
        table[a * count + b] = stepCost(before, places[a]!, slot, places[b]!, row) + here[b]!;
      }
    }
    return table;
  });
  const ahead = slots.map(() => new Float64Array(count));
  for (let i = slots.length - 2; i >= 0; i--) {
    const [table, rest] = [nth(pairs, i + 1), nth(ahead, i + 1)];
    for (let a = 0; a < count; a++) {
      let least = Infinity;
      for (let b = 0; b < count; b++) {
        const cost = table[a * count + b]! + rest[b]!;
        if (cost < least) least = cost;
      }
      nth(ahead, i)[a] = least;
    }
  }

  const search = (width: number, bound: number): PitchWay[] => {
    const layers: Layer[] = [];
    let layer: Layer = { keys: [], costs: [], origins: [] };
    for (let a = 0; a < count; a++) {
      const cost = firstOf(own)[a]!;
      if (cost + firstOf(ahead)[a]! > bound) continue;
      if (cost === Infinity || firstOf(ahead)[a] === Infinity) continue;
      layer.keys.push(a * STATES + first(firstOf(slots), nth(places, a)));
      layer.costs.push(cost);
      layer.origins.push(-1);
    }
    if (width < Infinity) layer = narrowed(layer, firstOf(ahead), width);
    layers.push(layer);
    for (let i = 1; i < slots.length; i++) {
      const next: Layer = { keys: [], costs: [], origins: [] };
      // Where each state stands in the layer; of k best, its places from the cheapest on.
      const known = new Map<number, number | number[]>();
      const [before, slot, table] = [nth(slots, i - 1), nth(slots, i), nth(pairs, i)];
      const last = nth(layers, i - 1);
      const rest = nth(ahead, i);
      for (let n = 0; n < last.keys.length; n++) {
        const key = last.keys[n]!;
        const a = Math.floor(key / STATES);
        const state = key % STATES;
        const so = last.costs[n]!;
        for (let b = 0; b < count; b++) {
          const plain = table[a * count + b]!;
          if (plain === Infinity || so + plain + rest[b]! > bound) continue;
          const { state: to, cost } = moved(state, before, places[a]!, slot, places[b]!, row);
          if (cost === Infinity) continue;
          const total = so + plain + cost;
          if (total + rest[b]! > bound) continue;
          enter(next, known, b * STATES + to, total, n, k);
        }
      }
      layer = width < Infinity ? narrowed(next, nth(ahead, i), width) : next;
      if (layer.keys.length === 0) return [];
      layers.push(layer);
    }
    const final = lastOf(layers);
    const ends = final.keys
      .map((key, n) => ({ n, cost: nth(final.costs, n) + hiddenCost(key % SHOWN, lastOf(slots), row) }))
      .sort((a, b) => a.cost - b.cost);
    return ends.slice(0, k).map(({ n, cost }) => {
      const way: Spot[] = [];
      for (let i = layers.length - 1, at = n; i >= 0; i--) {
        way.push(nth(places, Math.floor(nth(nth(layers, i).keys, at) / STATES)));
        at = nth(nth(layers, i).origins, at);
      }
      return { cost, places: way.reverse() };
    });
  };

  const near = search(NARROW, Infinity);
  const bound = near.length >= k ? nth(near, k - 1).cost + HAIR : Infinity;
  return search(Infinity, bound);
}

/** Enters a state that was reached, among the k cheapest of its kind. */
function enter(
  layer: Layer,
  known: Map<number, number | number[]>,
  key: number,
  cost: number,
  origin: number,
  k: number
): void {
  const at = known.get(key);
  if (k === 1) {
    if (at === undefined) known.set(key, push(layer, key, cost, origin));
    else if (cost < layer.costs[at as number]!) {
      layer.costs[at as number] = cost;
      layer.origins[at as number] = origin;
    }
    return;
  }
  const all = (at as number[] | undefined) ?? [];
  if (at === undefined) known.set(key, all);
  if (all.length < k) {
    all.push(push(layer, key, cost, origin));
    return;
  }
  const dearest = all.reduce((worst, one) => (nth(layer.costs, one) > nth(layer.costs, worst) ? one : worst));
  if (cost < nth(layer.costs, dearest)) {
    layer.costs[dearest] = cost;
    layer.origins[dearest] = origin;
  }
}

function push({ keys, costs, origins }: Layer, key: number, cost: number, origin: number): number {
  keys.push(key);
  costs.push(cost);
  return origins.push(origin) - 1;
}

/** The states that are near the best by what they cost and may still cost. */
function narrowed({ keys, costs, origins }: Layer, ahead: Float64Array, width: number): Layer {
  const total = (n: number) => nth(costs, n) + ahead[Math.floor(nth(keys, n) / STATES)]!;
  let best = Infinity;
  for (let n = 0; n < keys.length; n++) best = Math.min(best, total(n));
  const near = keys.map((_, n) => n).filter((n) => total(n) <= best + width);
  return {
    keys: near.map((n) => nth(keys, n)),
    costs: near.map((n) => nth(costs, n)),
    origins: near.map((n) => nth(origins, n))
  };
}

/**
 * What a way costs, added up note by note: how the search is checked. Infinity where a rule forbids it.
 */
export function costOf(
  way: readonly Spot[],
  { slots, row, seeded }: Omit<PitchProblem, 'places' | 'k'>
): number {
  if (slots.length === 0) return 0;
  let state = first(firstOf(slots), firstOf(way));
  let sum = ownCost(firstOf(slots), firstOf(way), row) + seeded(0, firstOf(way).midi);
  for (let i = 1; i < slots.length; i++) {
    const [before, slot, from, to] = [nth(slots, i - 1), nth(slots, i), nth(way, i - 1), nth(way, i)];
    const step = moved(state, before, from, slot, to, row);
    sum += ownCost(slot, to, row) + seeded(i, to.midi) + stepCost(before, from, slot, to, row) + step.cost;
    state = step.state;
  }
  return sum + hiddenCost(state % SHOWN, lastOf(slots), row);
}
