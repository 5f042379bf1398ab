/**
 * The chords of an accompaniment: pulses are gathered into stretches of one chord so that the whole costs least. What is foreign to a
 * chord, what it never shows, its bass, and where in the bar it changes all count; the best way through is found exactly, among the chords that its first pulses allow.
 */
import { nth, numberAt } from '../../base/list';
import type { PitchClass } from '../../base/units';
import { CHORD_ROWS, FOREIGN as FOREIGN_COST, type ChordRow } from './chord-rows';
import type { Sounding } from './sounding';

/** A chord from one pulse to another (not in), counted from 0. */
export interface HeardStretch {
  readonly from: number;
  readonly to: number;
  /** Null where nothing sounds. */
  readonly row: ChordRow | null;
  /** 0 to 1: how far this chord is before any other, and how much of what sounds it explains. */
  readonly sure: number;
}

/** Pitch classes that belong to the key of a pulse, bit n for pitch class n; 0 where none is known. */
export type KeySets = readonly number[];

/** Pulses that one stretch may have at once, beside those up to the next bar line and the one after it; longer ones join. */
const SHORT = [1, 2] as const;
/** How much less than the best a chord may be worth over the first two pulses of a stretch to be thought of at all. */
const IN_REACH = 10;
/** What a change costs on the first pulse of a bar, in its middle, elsewhere. */
const CHANGE = [1.2, 1.9, 3] as const;
/** Two stretches of the same chord. */
const JOIN = 0.05;
/** A share of all that sounds from which a tone is shown for certain. */
const SHOWN = 0.07;
/** Usual motions of a root, in semitones up. */
const MOTION: Readonly<Record<number, number>> = { 0: 0.4, 5: 0.25, 7: 0.1, 11: 0.1, 2: 0.05, 10: 0.05 };
/** A chord whose tones all belong to the key. */
const IN_KEY = 0.35;
/** How much of what it says the bass says again on a later pulse of a stretch: the first of a bar, its middle, another. */
const BASS_LATER = [0.7, 0.15, 0] as const;
/** Less than this in a pulse is silence. */
const SILENCE = 0.03;
/** Pulses of silence over which a chord is still remembered, in bars. */
const REMEMBERED_BARS = 2;
/** A bass stands under a chord that it does not belong to for at least this share of it. */
const HELD = 0.7;
/** How much dearer another chord must be for this one to be sure. */
const CLEAR = 1.2;

const ROWS = CHORD_ROWS.length;
const OCTAVE = 12;
/** The table of chords as numbers beside each other, a row after the other: this is gone through millions of times. */
const flat = (pick: (row: ChordRow) => Float64Array) =>
  Float64Array.from(CHORD_ROWS.flatMap((row) => Array.from(pick(row))));
const FOREIGN = flat(({ foreign }) => foreign);
const NEVER = flat(({ never }) => never);
const BASS = flat(({ bass }) => bass);
const RARE = Float64Array.from(CHORD_ROWS, ({ rare }) => rare);
const SETS = Int32Array.from(CHORD_ROWS, ({ pitchSet }) => pitchSet);
const ALL_ROWS = Int16Array.from(CHORD_ROWS, (_, r) => r);
const FIRST_OVER = CHORD_ROWS.findIndex(({ isOver }) => isOver);

/** Sums over pulses, so that a stretch is a difference. */
class Sums {
  readonly #all: Float64Array;
  readonly #bass: Float64Array;
  constructor(private readonly pulses: readonly Sounding[]) {
    this.#all = new Float64Array((pulses.length + 1) * OCTAVE);
    this.#bass = new Float64Array((pulses.length + 1) * OCTAVE);
    pulses.forEach(({ weights, bassWeights }, i) => {
      for (let pc = 0; pc < OCTAVE; pc++) {
        this.#all[(i + 1) * OCTAVE + pc] = this.#all[i * OCTAVE + pc]! + weights[pc]!;
        this.#bass[(i + 1) * OCTAVE + pc] = this.#bass[i * OCTAVE + pc]! + bassWeights[pc]!;
      }
    });
  }

  /** How much of each pitch class a stretch has, and without its bass. */
  over(from: number, to: number, all: Float64Array, upper: Float64Array): void {
    for (let pc = 0; pc < OCTAVE; pc++) {
      all[pc] = this.#all[to * OCTAVE + pc]! - this.#all[from * OCTAVE + pc]!;
      upper[pc] = all[pc]! - (this.#bass[to * OCTAVE + pc]! - this.#bass[from * OCTAVE + pc]!);
    }
  }

  /** The bass that a stretch begins with, where it has one early on; and whether it stays. */
  bass(from: number, to: number): { readonly pc: PitchClass | null; readonly stays: boolean } {
    const first = nth(this.pulses, from).bass;
    let same = 0;
    let some = 0;
    for (let i = from; i < to; i++) {
      const { bass } = nth(this.pulses, i);
      if (bass !== null) some++;
      if (bass !== null && bass === first) same++;
    }
    return { pc: first, stays: first !== null && same >= HELD * some };
  }
}

/** What each chord is worth over a stretch: 0 is perfect, less is worse; a fitting bass is a little more. */
function worths(
  sums: Sums,
  pulses: readonly Sounding[],
  [from, to]: readonly [number, number],
  key: number,
  rows: Int16Array,
  out: Float64Array
): void {
  sums.over(from, to, ALL, UPPER);
  const { pc: bass, stays } = sums.bass(from, to);
  BASSES.fill(0);
  for (let i = from + 1; i < to; i++) {
    const { bass: later, weakness } = nth(pulses, i);
    if (later !== null) BASSES[later]! += BASS_LATER[weakness];
  }
  unseenIn(ALL, UNSEEN);
  if (bass !== null && stays) unseenIn(UPPER, UNSEEN_UPPER);
  const isBassAgain = BASSES.some((weight) => weight > 0);
  for (const r of rows) {
    const isOver = r >= FIRST_OVER;
    if (isOver && (bass === null || !stays)) {
      out[r] = -Infinity;
      continue;
    }
    const weights = isOver ? UPPER : ALL;
    const unseen = isOver ? UNSEEN_UPPER : UNSEEN;
    const at = r * OCTAVE;
    let worth = -RARE[r]!;
    for (let pc = 0; pc < OCTAVE; pc++) {
      worth -= weights[pc]! * FOREIGN[at + pc]! + unseen[pc]! * NEVER[at + pc]!;
    }
    if (isBassAgain && !isOver)
      for (let pc = 0; pc < OCTAVE; pc++) if (BASSES[pc]! > 0) worth += BASSES[pc]! * BASS[at + pc]!;
    if (bass !== null) worth += BASS[at + bass]!;
    if (key && (SETS[r]! & ~key) === 0) worth += IN_KEY;
    out[r] = worth;
  }
}
const [ALL, UPPER, UNSEEN, UNSEEN_UPPER, BASSES] = Array.from(
  { length: 5 },
  () => new Float64Array(OCTAVE)
) as [Float64Array, Float64Array, Float64Array, Float64Array, Float64Array];

/** How far each pitch class is missing from what sounds: 1 where it is not there, 0 where there is enough of it. */
function unseenIn(weights: Float64Array, unseen: Float64Array): void {
  let sum = 0;
  for (let pc = 0; pc < OCTAVE; pc++) sum += weights[pc]!;
  for (let pc = 0; pc < OCTAVE; pc++)
    unseen[pc] = sum > 0 ? 1 - Math.min(1, weights[pc]! / (SHOWN * sum)) : 1;
}

export interface HeardChords {
  /** In order, without a gap. */
  readonly stretches: readonly HeardStretch[];
  /** What all of it is worth: where bar lines stand elsewhere it is more or less. */
  readonly worth: number;
}

/** The chords of some pulses. */
export function chordsHeard(pulses: readonly Sounding[], keys: KeySets = []): HeardChords {
  const sums = new Sums(pulses);
  const count = pulses.length;
  const best = new Float64Array((count + 1) * ROWS).fill(-Infinity);
  const start = new Int32Array((count + 1) * ROWS);
  const before = new Int32Array((count + 1) * ROWS).fill(-1);
  const worth = new Float64Array(ROWS);
  /** By pulse: the best there, and the best for each root. */
  const enter = new Float64Array(ROWS);
  const enteredFrom = new Int32Array(ROWS);
  for (let from = 0; from < count; from++) {
    entering(best, from, nth(pulses, from), enter, enteredFrom);
    const key = keys[from] ?? 0;
    worths(sums, pulses, [from, Math.min(count, from + 2)], key, ALL_ROWS, worth);
    const top = worth.reduce((most, own) => Math.max(most, own), -Infinity);
    const rows = ALL_ROWS.filter((r) => worth[r]! >= top - IN_REACH);
    for (const to of endsOf(pulses, from)) {
      worths(sums, pulses, [from, to], key, rows, worth);
      for (const r of rows) {
        const total = enter[r]! + worth[r]!;
        if (total <= best[to * ROWS + r]!) continue;
        best[to * ROWS + r] = total;
        start[to * ROWS + r] = from;
        before[to * ROWS + r] = enteredFrom[r]!;
      }
    }
  }
  let row = largest(best.subarray(count * ROWS));
  const total = best[count * ROWS + row]!;
  const way: { from: number; to: number; row: number }[] = [];
  let to = count;
  while (to > 0) {
    const at = to * ROWS + row;
    way.push({ from: start[at]!, to, row });
    [to, row] = [start[at]!, Math.max(0, before[at]!)];
  }
  return { stretches: joined(way.reverse(), pulses, sums, keys), worth: total };
}

/** Where a stretch that begins at a pulse may end. */
function endsOf(pulses: readonly Sounding[], from: number): number[] {
  const { inBar, ofBar } = nth(pulses, from);
  const line = from + ofBar - inBar;
  const next = line + (pulses[line]?.ofBar ?? 0);
  const ends = new Set([...SHORT.map((length) => from + length), line, next]);
  return [...ends].filter((to) => to > from && to <= pulses.length);
}

/** The best total with which each chord can begin at a pulse, and the chord it comes from. */
function entering(
  best: Float64Array,
  at: number,
  { weakness }: Sounding,
  enter: Float64Array,
  from: Int32Array
): void {
  if (at === 0) {
    enter.fill(0);
    from.fill(-1);
    return;
  }
  const own = best.subarray(at * ROWS, (at + 1) * ROWS);
  const byRoot = new Int32Array(OCTAVE).fill(-1);
  for (let r = 0; r < ROWS; r++) {
    const { root } = nth(CHORD_ROWS, r);
    if (byRoot[root]! < 0 || own[r]! > numberAt(own, byRoot[root]!)) byRoot[root] = r;
  }
  /** By root of the chord to come: the best that comes before it. */
  const into = Array.from({ length: OCTAVE }, (_, root) => {
    let [top, by] = [-Infinity, -1];
    for (const r of byRoot) {
      if (r < 0) continue;
      const total = own[r]! + (MOTION[(root - nth(CHORD_ROWS, r).root + OCTAVE) % OCTAVE] ?? 0);
      if (total > top) [top, by] = [total, r];
    }
    return { top: top - CHANGE[weakness], by };
  });
  for (let r = 0; r < ROWS; r++) {
    const { top, by } = nth(into, nth(CHORD_ROWS, r).root);
    const stays = own[r]! - JOIN;
    [enter[r], from[r]] = stays >= top ? [stays, r] : [top, by];
  }
}

function largest(values: Float64Array): number {
  let at = 0;
  for (let i = 1; i < values.length; i++) if (values[i]! > values[at]!) at = i;
  return at;
}

/** Stretches of the same chord as one, silence taken out, each with how sure it is. */
function joined(
  way: readonly { readonly from: number; readonly to: number; readonly row: number }[],
  pulses: readonly Sounding[],
  sums: Sums,
  keys: KeySets
): HeardStretch[] {
  const isSilent = ({ weights }: Sounding) => weights.reduce((sum, weight) => sum + weight, 0) < SILENCE;
  const merged: { from: number; to: number; row: number }[] = [];
  for (const stretch of way) {
    const last = merged.at(-1);
    const sameBass = () => nth(pulses, last!.from).bass === nth(pulses, stretch.from).bass;
    if (last?.row === stretch.row && (!nth(CHORD_ROWS, last.row).isOver || sameBass())) last.to = stretch.to;
    else merged.push({ ...stretch });
  }
  const worth = new Float64Array(ROWS);
  const out: HeardStretch[] = [];
  for (const { from, to, row } of merged) {
    let at = from;
    const { ofBar } = nth(pulses, from);
    while (at < to) {
      let silent = at;
      while (silent < to && isSilent(nth(pulses, silent))) silent++;
      const isPause = silent > at && (at === 0 || silent - at > REMEMBERED_BARS * ofBar);
      if (isPause) {
        out.push({ from: at, to: silent, row: null, sure: 1 });
        at = silent;
        continue;
      }
      let end = Math.max(silent, at + 1);
      while (end < to && !isSilent(nth(pulses, end))) end++;
      const last = out.at(-1);
      const sure = sureness(sums, pulses, [at, end], keys[at] ?? 0, row, worth);
      if (last && last.row === CHORD_ROWS[row] && last.to === at && last.from >= from)
        out[out.length - 1] = { ...last, to: end, sure: Math.min(last.sure, sure) };
      else out.push({ from: at, to: end, row: nth(CHORD_ROWS, row), sure });
      at = end;
    }
  }
  return out;
}

/** How far a chord is before the best one of other notes, times how much of what sounds it explains. */
function sureness(
  sums: Sums,
  pulses: readonly Sounding[],
  [from, to]: readonly [number, number],
  key: number,
  row: number,
  worth: Float64Array
): number {
  worths(sums, pulses, [from, to], key, ALL_ROWS, worth);
  const chosen = nth(CHORD_ROWS, row);
  let rival = -Infinity;
  for (let r = 0; r < ROWS; r++) {
    const other = nth(CHORD_ROWS, r);
    // A seventh more or less on the same root is no other chord.
    const isSame =
      (other.pitchSet & chosen.pitchSet) === other.pitchSet ||
      (other.pitchSet & chosen.pitchSet) === chosen.pitchSet;
    if (!isSame && worth[r]! > rival) rival = worth[r]!;
  }
  const lead = 1 / (1 + Math.exp((rival - worth[row]!) / CLEAR));
  const weights = chosen.isOver ? UPPER : ALL;
  let [sum, cost] = [0, 0];
  for (let pc = 0; pc < OCTAVE; pc++) {
    sum += weights[pc]!;
    cost += (weights[pc]! * chosen.foreign[pc]!) / FOREIGN_COST;
  }
  return sum > 0 ? lead * (1 - cost / sum) : 1;
}
