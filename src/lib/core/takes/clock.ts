/**
 * The player's time against the band's: a constant offset, a drift of the tempo, how they swing, and the grid that each pulse is played
 * on, fitted to all notes together. With them taken out a line is read as it was meant; what is left over is the player's time.
 * Source: docs/music-rules.md, The player's time.
 */
import { entryOf, firstOf, lastOf, nth } from '../base/list';
import type { Beats } from '../base/units';
import { pulsesOf, type Pulse } from '../chart/pulses';
import type { Form } from '../chart/unroll';
import { straightened } from '../line/sound';
import { beatOf, type TakeClock } from './align';
import type { PlayedNote } from './model';

/** How a player lies in time. Seconds; positive is behind the band. */
export interface PlayersTime {
  /** The clock as the player has it: the band's, moved by the offset and turned by the drift. */
  readonly clock: TakeClock;
  /** Constant, in seconds; 0 where none can be told. */
  readonly offset: number;
  /** How much faster the player goes than the band, as a share of its tempo: 0.03 rushes by three in a hundred. */
  readonly drift: number;
  /** Where the second half of a pulse is played, 0.5 for straight; null where too few halves are played to tell. */
  readonly swing: number | null;
  /** Of all notes against the band's beat, drift taken out, in seconds. */
  readonly mean: number;
  /** Standard deviation of what is left when offset, drift and swing are taken out, in seconds. */
  readonly spread: number;
  /** Share of the notes that lie on the side of the mean. */
  readonly oneSided: number;
  /** Every note that lies on a grid: its beat in the take, and how far behind the band's beat it came, in seconds. */
  readonly notes: readonly { readonly at: number; readonly late: number }[];
  /**
   * The beat as it is written, of one on the player's clock: swing is straightened. `isExact`: on the place of its pulse's grid, where it
   * lies near one.
   */
  readonly writtenAt: (beat: number, isExact?: boolean) => number;
}

/** Fewer notes tell of no offset, fewer of no drift. */
const LEAST = { offset: 8, drift: 16, swing: 4 } as const;
/** Pulses that a drift is told over. */
const LEAST_SPAN = 12;
/** The most that a tempo drifts, how finely it is looked for (parts of a quarter of a pulse at the end), and by how much it has to be clearer. */
const DRIFT = { most: 0.06, finer: 8, clearer: 0.1 } as const;
/** Notes that a drift is looked for in. */
const MOST_NOTES = 400;
/** Parts of a pulse at which onsets agree, with what each tells. */
const AGREE = [
  [1, 0.5],
  [2, 1],
  [3, 0.6],
  [4, 0.6]
] as const;

/**
 * An offset is looked for up to this part of a pulse, so finely. Each note pays `dear` of a stray one for an offset of `at` seconds, and an
 * offset is one only where the notes gain so much by it, each, over none at all.
 */
const OFFSET = { most: 0.34, step: 0.02, dear: 0.02, at: 0.1, gain: 0.12 } as const;
/** Places of the second half that are tried, straight to long. */
const SWINGS = [0.5, 0.53, 0.56, 0.58, 0.6, 0.625, 0.65, 0.667, 0.69, 0.71] as const;
/** Those that are tried with every offset. */
const FEW_SWINGS = [0.5, 0.58, 0.667] as const;
/** What another swing than the band's costs at most, in stray notes. */
const STRANGE_SWING = 0.4;

/** A grid of a pulse: its places, and what it costs to take it, in stray notes for each note of the pulse. */
interface Grid {
  readonly places: readonly number[];
  readonly cost: number;
  /** Its half swings. */
  readonly swings?: true;
}
const SIMPLE: readonly Grid[] = [
  { places: [0, 0.5], cost: 0, swings: true },
  { places: [0, 1 / 3, 2 / 3], cost: 0.12 },
  { places: [0, 0.25, 0.5, 0.75], cost: 0.16 },
  { places: [0, 1 / 6, 1 / 3, 0.5, 2 / 3, 5 / 6], cost: 0.4 }
];
const TRIPLE: readonly Grid[] = [
  { places: [0, 1 / 3, 2 / 3], cost: 0 },
  { places: [0, 0.5], cost: 0.1 },
  { places: [0, 0.25, 0.5, 0.75], cost: 0.2 },
  { places: [0, 1 / 6, 1 / 3, 0.5, 2 / 3, 5 / 6], cost: 0.14 }
];
/** So near a place a note is meant to be on it, in parts of a pulse. */
const MEANT = 0.13;
/** A note this far from a place counts as a stray one, in parts of a pulse and in seconds: whichever is more. */
const STRAY = { pulse: 0.1, seconds: 0.03 } as const;

/** Pulses of a form, round after round, by number: of any beat in which pulse it lies, and how far in it, 0 to 1. */
class Pulses {
  readonly #starts: readonly number[];
  readonly #lengths: readonly number[];
  readonly #triple: readonly boolean[];
  readonly #beats: Beats;

  constructor(form: Pick<Form, 'bars' | 'beats'>) {
    const pulses: readonly Pulse[] = form.bars.flatMap((bar) => pulsesOf(bar));
    this.#starts = pulses.map(({ start }) => start);
    this.#lengths = pulses.map(({ beats }) => beats);
    this.#triple = pulses.map(({ isTriple }) => isTriple);
    this.#beats = form.beats;
  }

  get mean(): number {
    return this.#beats / Math.max(1, this.#starts.length);
  }

  at(beat: number): {
    readonly number: number;
    readonly start: number;
    readonly beats: Beats;
    readonly isTriple: boolean;
  } {
    const round = Math.floor(beat / this.#beats);
    const within = beat - round * this.#beats;
    let [low, high] = [0, this.#starts.length - 1];
    while (low < high) {
      const middle = Math.ceil((low + high) / 2);
      if (nth(this.#starts, middle) <= within + 1e-9) low = middle;
      else high = middle - 1;
    }
    return {
      number: round * this.#starts.length + low,
      start: round * this.#beats + nth(this.#starts, low),
      beats: nth(this.#lengths, low),
      isTriple: nth(this.#triple, low)
    };
  }
}

/** A note in its pulse: from −⅛ (just before the beat) to ⅞. */
interface Placed {
  readonly pulse: number;
  readonly phase: number;
  readonly isTriple: boolean;
  /** Of its pulse, in beats. */
  readonly beats: Beats;
}
const BEFORE = 0.125;

function placed(beats: readonly number[], pulses: Pulses): Placed[] {
  return beats.map((beat) => {
    const own = pulses.at(beat);
    const phase = (beat - own.start) / own.beats;
    if (phase <= 1 - BEFORE) return { pulse: own.number, phase, isTriple: own.isTriple, beats: own.beats };
    const next = pulses.at(own.start + own.beats + 1e-6);
    return {
      pulse: own.number + 1,
      phase: (phase - 1) * (own.beats / next.beats),
      isTriple: next.isTriple,
      beats: next.beats
    };
  });
}

/** The same notes a little earlier: what moves over the edge of a pulse goes to the next. */
function shifted(notes: readonly Placed[], by: number): Placed[] {
  return notes.map((note) => {
    const phase = note.phase - by;
    if (phase > 1 - BEFORE) return { ...note, pulse: note.pulse + 1, phase: phase - 1 };
    if (phase < -BEFORE) return { ...note, pulse: note.pulse - 1, phase: phase + 1 };
    return { ...note, phase };
  });
}

const placesOf = (grid: Grid, swing: number): readonly number[] => (grid.swings ? [0, swing] : grid.places);

/** How far a phase is from the nearest place of a grid; the next beat is a place of each. */
function awayFrom(phase: number, places: readonly number[]): number {
  let best = phase - 1;
  for (const place of places) if (Math.abs(phase - place) < Math.abs(best)) best = phase - place;
  return best;
}

/** Notes that all lie so near the plainest grid, in parts of what makes a stray one, lie on it. */
const PLAIN = 0.8;

/** The grid that the notes of one pulse lie on, and what that costs, in stray notes. The plainest that holds them all is theirs. */
function gridOf(phases: readonly number[], isTriple: boolean, swing: number, stray: number) {
  let best: { readonly grid: Grid; readonly cost: number } | null = null;
  for (const grid of isTriple ? TRIPLE : SIMPLE) {
    const places = placesOf(grid, swing);
    let cost = grid.cost * phases.length;
    let isHeld = true;
    for (const phase of phases) {
      const away = Math.abs(awayFrom(phase, places)) / stray;
      cost += Math.min(1, away ** 2);
      isHeld &&= away <= PLAIN;
    }
    if (!best && isHeld) return { grid, cost };
    if (!best || cost < best.cost) best = { grid, cost };
  }
  return best!;
}

function byPulse(notes: readonly Placed[]): Map<number, Placed[]> {
  const groups = new Map<number, Placed[]>();
  for (const note of notes) {
    const own = groups.get(note.pulse);
    if (own) own.push(note);
    else groups.set(note.pulse, [note]);
  }
  return groups;
}

function costOf(notes: readonly Placed[], swing: number, stray: number): number {
  let cost = 0;
  for (const own of byPulse(notes).values())
    cost += gridOf(
      own.map(({ phase }) => phase),
      firstOf(own).isTriple,
      swing,
      stray
    ).cost;
  return cost;
}

/** How much faster than the band onsets go, by how they agree with the parts of a pulse; 0 unless it is clearly so. */
function driftOf(beats: readonly number[], pulse: number): number {
  const every = Math.max(1, Math.ceil(beats.length / MOST_NOTES));
  const onsets = beats.filter((_, i) => i % every === 0).map((beat) => beat / pulse);
  const span = onsets.length > 1 ? lastOf(onsets) - firstOf(onsets) : 0;
  if (onsets.length < LEAST.drift || span < LEAST_SPAN) return 0;
  const step = 1 / (4 * DRIFT.finer * span);
  const most = Math.floor(DRIFT.most / step);
  const scores = agreements(onsets, step, most);
  const still = { drift: 0, score: nth(scores, most).score + DRIFT.clearer };
  return scores.reduce((best, one) => (one.score > best.score ? one : best), still).drift;
}

/** How onsets agree with the parts of a pulse at each drift of up to `most` steps down and up. A step turns an onset by an angle of its own. */
function agreements(onsets: readonly number[], step: number, most: number) {
  const scores = Array.from({ length: 2 * most + 1 }, (_, i) => ({ drift: (i - most) * step, score: 0 }));
  for (const [parts, weight] of AGREE) {
    const [xs, ys] = [new Float64Array(scores.length), new Float64Array(scores.length)];
    for (const onset of onsets) {
      const turn = 2 * Math.PI * parts * onset;
      const [cos, sin] = [Math.cos(turn * step), Math.sin(turn * step)];
      const lowest = turn * (1 - most * step);
      let [x, y] = [Math.cos(lowest), Math.sin(lowest)];
      for (let i = 0; i < xs.length; i++) {
        xs[i]! += x;
        ys[i]! += y;
        const turned = x * cos - y * sin;
        y = x * sin + y * cos;
        x = turned;
      }
    }
    scores.forEach((own, i) => (own.score += (weight * Math.hypot(xs[i]!, ys[i]!)) / onsets.length));
  }
  return scores;
}

/**
 * The time of some notes against the band's clock.
 * @param bandSwing where the band has the second half of a pulse, 0.5 for straight
 */
export function timeOf(
  notes: readonly PlayedNote[],
  clock: TakeClock,
  form: Pick<Form, 'bars' | 'beats'>,
  bandSwing = 0.5
): PlayersTime {
  const pulses = new Pulses(form);
  const onsets = notes.map(({ at }) => beatOf(clock, at)).sort((a, b) => a - b);
  const pulseBeats = pulses.mean;
  const secondsOf = (parts: number) => (parts * pulseBeats * 60) / clock.tempo;
  const stray = Math.max(STRAY.pulse, (STRAY.seconds * clock.tempo) / (60 * pulseBeats));
  const canTell = onsets.length >= LEAST.offset && form.beats > 0 && form.bars.length > 0;
  const drift = canTell ? driftOf(onsets, pulseBeats) : 0;
  const inPlace = placed(
    onsets.map((beat) => beat * (1 + drift)),
    pulses
  );
  const n = onsets.length;
  const prior = (offset: number, swing: number) =>
    OFFSET.dear * n * (secondsOf(offset) / OFFSET.at) ** 2 +
    (swing === 0.5 || Math.abs(swing - bandSwing) < 0.02 ? 0 : STRANGE_SWING);
  const best = canTell ? searched(inPlace, stray, prior) : { offset: 0, swing: bandSwing };
  const settled = canTell ? refined(inPlace, best, stray) : best;
  const { offset } = settled;
  const moved = shifted(inPlace, offset);
  // Of a swing that too few notes tell the band's is taken.
  const halves = halvesIn(moved, settled.swing, stray);
  const isSwingTold = canTell && halves >= LEAST.swing;
  const swing = isSwingTold ? settled.swing : bandSwing;
  const grids = new Map(
    [...byPulse(moved)].map(([pulse, own]) => [
      pulse,
      gridOf(
        own.map(({ phase }) => phase),
        firstOf(own).isTriple,
        swing,
        stray
      ).grid
    ])
  );
  const away = moved.map(
    (note) => awayFrom(note.phase, placesOf(entryOf(grids, note.pulse), swing)) * note.beats
  );
  const near = away.map((beats) => Math.abs(beats) <= 2 * stray * pulseBeats);
  const told = onsets.flatMap((at, i) =>
    near[i] ? [{ at, late: (nth(away, i) * 60) / clock.tempo + secondsOf(offset) }] : []
  );
  const left = told.map(({ late }) => late - secondsOf(offset));
  const mean = average(told.map(({ late }) => late));
  const startBeat = (offset * pulseBeats) / (1 + drift);
  return {
    clock: {
      tempo: clock.tempo * (1 + drift),
      start: clock.start + (startBeat * 60) / clock.tempo
    },
    offset: secondsOf(offset),
    drift,
    swing: isSwingTold ? swing : null,
    mean,
    spread: Math.sqrt(average(left.map((one) => one ** 2))),
    oneSided: told.length
      ? told.filter(({ late }) => Math.sign(late) === Math.sign(mean)).length / told.length
      : 0,
    notes: told,
    writtenAt: (beat, isExact = false) => {
      const own = firstOf(placed([beat], pulses));
      const grid = grids.get(own.pulse) ?? firstOf(own.isTriple ? TRIPLE : SIMPLE);
      const pulse = pulses.at(beat - own.phase * own.beats + 1e-6);
      const places = placesOf(grid, swing);
      const away = awayFrom(own.phase, places);
      const place = own.phase - away;
      const isMeant = isExact && Math.abs(away) <= MEANT;
      const heard = isMeant ? place : own.phase;
      const part = grid.swings && heard > 0 && heard < 1 ? straightened(heard, swing) : heard;
      return pulse.start + part * pulse.beats;
    }
  };
}

/** How many notes lie on the second half of a pulse. */
function halvesIn(notes: readonly Placed[], swing: number, stray: number): number {
  let count = 0;
  for (const own of byPulse(notes).values()) {
    const phases = own.map(({ phase }) => phase);
    const { grid } = gridOf(phases, firstOf(own).isTriple, swing, stray);
    if (!grid.swings) continue;
    count += phases.filter(
      (phase) => Math.abs(awayFrom(phase, [0, swing])) <= stray && Math.abs(phase - swing) < Math.abs(phase)
    ).length;
  }
  return count;
}

/** The offset and the swing that cost least; no offset where none is clearly better. */
function searched(
  notes: readonly Placed[],
  stray: number,
  prior: (offset: number, swing: number) => number
): { readonly offset: number; readonly swing: number } {
  const cost = (offset: number, swing: number) =>
    costOf(offset === 0 ? notes : shifted(notes, offset), swing, stray) + prior(offset, swing);
  const bestSwing = (offset: number) =>
    SWINGS.map((swing) => ({ offset, swing, cost: cost(offset, swing) })).reduce((a, b) =>
      b.cost < a.cost - 1e-9 ? b : a
    );
  const none = bestSwing(0);
  const steps = Math.round(OFFSET.most / OFFSET.step);
  let found = { offset: 0, cost: Infinity };
  for (let i = -steps; i <= steps; i++) {
    for (const swing of FEW_SWINGS) {
      const own = { offset: i * OFFSET.step, cost: cost(i * OFFSET.step, swing) };
      if (own.cost < found.cost - 1e-9) found = own;
    }
  }
  const some = bestSwing(found.offset);
  return none.cost - some.cost >= OFFSET.gain * notes.length ? some : none;
}

/** Steps between the places tried, and a swing between them, by the mean of what is left over. */
function refined(
  notes: readonly Placed[],
  found: { readonly offset: number; readonly swing: number },
  stray: number
) {
  let { offset, swing } = found;
  const isConstant = offset !== 0;
  for (let times = 0; times < 3; times++) {
    const moved = shifted(notes, offset);
    const [onBeat, onHalf]: [number[], number[]] = [[], []];
    for (const own of byPulse(moved).values()) {
      const { grid } = gridOf(
        own.map(({ phase }) => phase),
        firstOf(own).isTriple,
        swing,
        stray
      );
      for (const { phase } of own) {
        const away = awayFrom(phase, placesOf(grid, swing));
        if (Math.abs(away) > stray) continue;
        if (grid.swings && Math.abs(phase - swing) < Math.abs(phase)) onHalf.push(away);
        else onBeat.push(away);
      }
    }
    const later = average(onBeat.length > 0 ? onBeat : onHalf);
    // Where no offset was found none is made of a few hundredths.
    if (isConstant) offset += later;
    if (onHalf.length >= LEAST.swing && onBeat.length > 0)
      swing = Math.min(0.75, Math.max(0.48, swing + average(onHalf) - later));
  }
  return { offset, swing };
}

const average = (values: readonly number[]) =>
  values.length ? values.reduce((sum, value) => sum + value, 0) / values.length : 0;
