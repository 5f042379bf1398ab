/**
 * A bass that walks: a note on every pulse, found as the line of least cost. The written bass stands where a chord begins, the last note leads
 * into the next one, and between them the line goes by step in one direction for as long as it can. Source: docs/music-rules.md, The band.
 */
import { firstOf, lastOf, nth } from '../base/list';
import type { Beats, Midi } from '../base/units';
import type { AnalysedChange } from '../harmony/analysis';
import { stepsOver } from '../harmony/key';
import type { Chord } from '../theory/chord';
import { pitchClass, type PitchClass } from '../theory/note';
import { bent } from '../line/sound';
import { oneOf, type Chance } from '../line/chance';
import { ratioIn, type Stage, type StageBar } from './stage';

/** A note of the walk. */
export interface WalkedNote {
  readonly start: Beats;
  readonly end: Beats;
  readonly midi: Midi;
  /** It stands where a chord begins. */
  readonly isFirst: boolean;
  readonly isOnPulse: boolean;
  /** Hardly more than a touch. */
  readonly isGhost: boolean;
}

export const LOWEST_WALK = 28;
export const HIGHEST_WALK = 52;
const CENTRE = 39;
/** Above this a bass seldom goes. */
const HIGH = 48;

/** What a pitch class is over a chord. */
type Kind = 'tone' | 'scale' | 'between';

interface Slot {
  readonly start: Beats;
  readonly end: Beats;
  readonly change: number;
  /** The bar it stands in. */
  readonly bar: StageBar;
  /** Its pulse in the bar. */
  readonly pulse: number;
  readonly isFirst: boolean;
  /** The last note before another chord. */
  readonly leads: boolean;
  readonly kinds: readonly Kind[];
  readonly bass: PitchClass;
  readonly root: PitchClass;
}

const bassOf = (chord: Chord) => pitchClass(chord.bass ?? chord.root);

/** The tones of a chord, the steps of the key between them, and what is neither. */
export function kindsOver({ chord, key }: Pick<AnalysedChange, 'key'> & { readonly chord: Chord }): Kind[] {
  const steps = stepsOver(chord, key);
  return Array.from({ length: 12 }, (_, pc): Kind => {
    if (chord.pitchClasses.includes(pc) || pc === bassOf(chord)) return 'tone';
    return steps.has(pc) ? 'scale' : 'between';
  });
}

/** A slot for every pulse, and one where a chord begins between pulses. */
function slotsOf({ bars, excerpt: { changes } }: Stage): Slot[] {
  const at = (beat: number) => changes.findLastIndex(({ start }) => start <= beat + 1e-6);
  const slots: Slot[] = [];
  for (const bar of bars) {
    const end = bar.start + bar.beats;
    const inside = changes.filter(({ start }) => start > bar.start + 1e-6 && start < end - 1e-6);
    const pulses = bar.closes ? bar.pulses.slice(0, 1) : bar.pulses;
    const times = [
      ...new Set([...pulses.map(({ start }) => start), ...inside.map(({ start }) => start)])
    ].sort((a, b) => a - b);
    times.forEach((start, n) => {
      const change = at(start);
      const own = changes[change];
      if (!own?.source.chord) return;
      const until = Math.min(times[n + 1] ?? end, own.start + own.beats);
      if (until - start < 0.1) return;
      const chord = own.source.chord;
      const next = changes[(change + 1) % changes.length]?.source.chord;
      const isLastOfChange = until >= own.start + own.beats - 1e-6;
      const isFirst = Math.abs(start - own.start) < 1e-6;
      slots.push({
        start,
        end: until,
        change,
        bar,
        pulse: bar.pulses.findIndex((pulse) => Math.abs(pulse.start - start) < 1e-6),
        isFirst,
        leads: isLastOfChange && !isFirst && next !== undefined && next !== null,
        kinds: kindsOver({ ...own.source, chord }),
        bass: bassOf(chord),
        root: chord.rootPc
      });
    });
  }
  return slots;
}

/** Nothing between a fifth and an octave, unless there is no other way. */
const STEP_COST: readonly number[] = [2.6, 0, 0, 0.75, 0.85, 0.95, 2.2, 1.1, 9, 9, 9, 9, 1.3];
/** Turning after one, two notes and more in one direction. */
const TURN = [1.2, 0.8, 0.25] as const;
const SEVENTH_FIRST = 2.6;
const ROOT_AGAIN = 2.4;
const UNLED = 3.5;
const CHANCE = 1.25;

/** What a note costs by itself. */
function placeCost(slot: Slot, midi: Midi): number {
  const pc = midi % 12;
  const range = 0.035 * Math.abs(midi - CENTRE) + (midi > HIGH ? 0.5 * (midi - HIGH) : 0);
  if (slot.isFirst) return pc === slot.bass ? range : Infinity;
  const kind = nth(slot.kinds, pc);
  const isStrong = slot.pulse % 2 === 0;
  const isBarLine = slot.pulse === 0;
  if (isBarLine) return kind === 'tone' ? range + (pc === slot.root ? 0.4 : 0) : Infinity;
  // A root that comes back within the bar stands still.
  const again = pc === slot.bass ? ROOT_AGAIN : 0;
  if (kind === 'tone') return range + again;
  if (kind === 'scale') return range + (isStrong ? 0.45 : 0.1);
  return isStrong && !slot.leads ? Infinity : range + (slot.leads ? 0.4 : 1);
}

/** What a step costs; `run` is how many notes went one way, `way` which. */
function stepCost(from: Slot, a: number, to: Slot, b: number): number {
  const size = Math.abs(b - a);
  if (size > 12) return Infinity;
  let cost = nth(STEP_COST, size);
  // What is neither of chord nor key lies between its neighbours.
  if (!from.isFirst && from.kinds[a % 12] === 'between' && size > (from.leads ? 2 : 1)) return Infinity;
  if (!to.isFirst && to.kinds[b % 12] === 'between' && size > 2 && !to.leads) return Infinity;
  if (from.leads && to.isFirst && to.bass !== from.bass) {
    if (size === 1) cost = -0.3;
    else if (size === 2) cost = -0.1;
    else if (size === 7 || size === 5) cost = 0.8;
    else cost += UNLED;
  }
  // The seventh just beside the root tells the chord before the line has gone anywhere.
  if (from.isFirst && (size === 2 || size === 10) && b % 12 === (from.bass + 10) % 12) cost += SEVENTH_FIRST;
  return cost;
}

/** What is further behind the best than this is let go: no rule of one note weighs more. */
const BEHIND = 3;

const WIDTH = HIGHEST_WALK - LOWEST_WALK + 1;
const RUNS = 3;
const WAYS = 3;
/** States of a pitch. */
const EACH = WAYS * RUNS;
const STATES = WIDTH * EACH;

/** The cheapest line through slots that begins on a pitch, and leads back to it where the music goes round. */
function lineThrough(
  slots: readonly Slot[],
  first: number,
  extra: (slot: number, midi: Midi) => number,
  goesRound: boolean
): number[] {
  let costs = new Float64Array(STATES).fill(Infinity);
  costs[(first - LOWEST_WALK) * EACH] = 0;
  const origins: Int32Array[] = [];
  for (let i = 1; i < slots.length; i++) {
    const [from, to] = [nth(slots, i - 1), nth(slots, i)];
    const next = new Float64Array(STATES).fill(Infinity);
    const origin = new Int32Array(STATES).fill(-1);
    // Few pitches stand in a slot, and few states are left of the one before.
    const places: (readonly [midi: Midi, cost: number])[] = [];
    for (let midi = LOWEST_WALK; midi <= HIGHEST_WALK; midi++) {
      const own = placeCost(to, midi);
      if (own < Infinity) places.push([midi, own + extra(i, midi)]);
    }
    for (let a = 0; a < WIDTH; a++) {
      const states: number[] = [];
      for (let s = a * EACH; s < (a + 1) * EACH; s++) if (costs[s]! < Infinity) states.push(s);
      if (states.length === 0) continue;
      for (const [midi, place] of places) {
        const step = stepCost(from, a + LOWEST_WALK, to, midi);
        if (step === Infinity) continue;
        const b = midi - LOWEST_WALK;
        const way = b > a ? 1 : b < a ? 2 : 0;
        for (const s of states) {
          const state = s - a * EACH;
          const had = state >= 2 * RUNS ? 2 : state >= RUNS ? 1 : 0;
          const run = state - had * RUNS;
          const turns = had !== 0 && way !== 0 && way !== had;
          const cost = costs[s]! + place + step + (turns ? nth(TURN, run) : 0);
          const nextRun = way === 0 || turns || had === 0 ? 0 : Math.min(RUNS - 1, run + 1);
          const key = b * EACH + way * RUNS + nextRun;
          if (cost < next[key]!) {
            next[key] = cost;
            origin[key] = s;
          }
        }
      }
    }
    // What lies far behind the best never catches up with it.
    let bound = Infinity;
    for (let key = 0; key < STATES; key++) if (next[key]! < bound) bound = next[key]!;
    for (let key = 0; key < STATES; key++) if (next[key]! > bound + BEHIND) next[key] = Infinity;
    costs = next;
    origins.push(origin);
  }
  let at = -1;
  let least = Infinity;
  const last = lastOf(slots);
  costs.forEach((cost, key) => {
    const midi = Math.floor(key / EACH) + LOWEST_WALK;
    const closing = goesRound && slots.length > 1 ? stepCost(last, midi, firstOf(slots), first) : 0;
    if (cost + closing < least) [least, at] = [cost + closing, key];
  });
  if (at < 0) return [];
  const way: number[] = [];
  for (let i = slots.length - 1; i >= 0; i--) {
    way.push(Math.floor(at / EACH) + LOWEST_WALK);
    at = origins[i - 1]?.[at] ?? -1;
  }
  return way.reverse();
}

/** Bars that say what the one before said, by the first of their slots. */
function repeatedBars(slots: readonly Slot[], line: readonly number[]): number[] {
  const bars = new Map<number, number[]>();
  slots.forEach(({ bar }, i) => bars.set(bar.index, [...(bars.get(bar.index) ?? []), i]));
  const text = (at: readonly number[] | undefined) => at?.map((i) => nth(line, i) % 12).join() ?? '';
  return [...bars].flatMap(([index, own]) =>
    own.length > 2 && text(own) === text(bars.get(index - 1)) ? [firstOf(own)] : []
  );
}

/** A slot that is not the first of its chord, so that its note can be another. */
const AVOIDED = 1.5;
const TRIES = 3;

/** Bars of so many have a note between the pulses. */
const OFF_BEATS = 0.26;
type Figure = 'skip' | 'approach' | 'triplet' | 'ghost';
const FIGURES: readonly Figure[] = ['skip', 'skip', 'approach', 'triplet', 'ghost'];

/** The walk of a round, in the order of time. */
export function walkedNotes(stage: Stage, first: number, chance: Chance): WalkedNote[] {
  const slots = slotsOf(stage);
  if (slots.length === 0) return [];
  const noise = Float64Array.from({ length: slots.length * WIDTH }, () => CHANCE * chance());
  const extra = (slot: number, midi: Midi) => noise[slot * WIDTH + midi - LOWEST_WALK]!;
  let line = lineThrough(slots, first, extra, !stage.isLast);
  for (let tries = 0; tries < TRIES; tries++) {
    const repeated = repeatedBars(slots, line);
    if (repeated.length === 0) break;
    for (const at of repeated)
      for (let i = at + 1; i < slots.length && nth(slots, i).bar === nth(slots, at).bar; i++)
        noise[i * WIDTH + nth(line, i) - LOWEST_WALK]! += AVOIDED;
    line = lineThrough(slots, first, extra, !stage.isLast);
  }
  if (line.length === 0) return [];
  return withFigures(slots, line, stage, chance);
}

/** Now and then something between the pulses: a skip, a note that leads, a triplet, a touch. */
function withFigures(
  slots: readonly Slot[],
  line: readonly number[],
  stage: Stage,
  chance: Chance
): WalkedNote[] {
  const figured = new Map<number, Figure>();
  for (const bar of stage.bars) {
    const own = slots.flatMap((slot, i) => (slot.bar === bar && slot.end - slot.start > 0.9 ? [i] : []));
    if (own.length === 0 || bar.ends || chance() >= OFF_BEATS) continue;
    figured.set(oneOf(chance, own), oneOf(chance, FIGURES));
  }
  const last = stage.isLast ? stage.bars.at(-1)?.pulses.at(-1)?.start : undefined;
  return slots.flatMap((slot, i): WalkedNote[] => {
    const { start, end, isFirst } = slot;
    const midi = nth(line, i);
    const plain: WalkedNote = { start, end, midi, isFirst, isOnPulse: true, isGhost: false };
    const figure = figured.get(i);
    if (!figure || (last !== undefined && end > last - 1e-6)) return [plain];
    const length = end - start;
    const off = start + length * bent(0.5, ratioIn(stage, slot.bar));
    const between = (from: number, to: number, pitch: number, isGhost: boolean): WalkedNote => ({
      start: from,
      end: to,
      midi: pitch,
      isFirst: false,
      isOnPulse: false,
      isGhost
    });
    const next = slots[i + 1];
    switch (figure) {
      case 'approach': {
        // A semitone beside the note that comes, on the side from which the line arrives.
        const goal = line[i + 1];
        if (goal === undefined || !next || next.change !== slot.change || goal === midi)
          return [{ ...plain, end: off }, between(off, end, midi, false)];
        const lead = goal > midi ? goal - 1 : goal + 1;
        return [{ ...plain, end: off }, between(off, end, lead === midi ? goal : lead, false)];
      }
      case 'triplet': {
        const third = length / 3;
        return [
          { ...plain, end: start + third },
          between(start + third, start + 2 * third, midi, true),
          between(start + 2 * third, end, midi, false)
        ];
      }
      default:
        return [{ ...plain, end: off }, between(off, end, midi, figure === 'ghost')];
    }
  });
}
