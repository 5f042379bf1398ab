/**
 * A line as it is written down: bar by bar, in note values with dots, ties and tuplets. Every piece keeps its exact time, so that
 * nothing is lost where no usual value fits. Notation, tab and files are made of it. Source of the rules: docs/music-rules.md, A line
 * written down.
 */
import { nth, sure } from '../base/list';
import type { Ticks } from '../base/units';
import type { Meter } from '../chart/model';
import type { PlayedBar } from '../chart/unroll';
import { endOf, ticksOf, TICKS, type LineNote } from './model';

/** Parts of a whole note: 4 is a quarter. */
export type NoteValue = 1 | 2 | 4 | 8 | 16 | 32 | 64;

export interface Piece {
  /** In ticks from the start of the form. */
  readonly start: Ticks;
  readonly length: Ticks;
  readonly value: NoteValue;
  readonly dots: 0 | 1;
  /** Places of its notes in the line; none is a rest. */
  readonly notes: readonly number[];
  /** It goes on from the piece before without being struck: a note across a beat, or one that is tied. */
  readonly isTied: boolean;
  /** It is the first piece of its notes. */
  readonly isFirst: boolean;
  /** Pieces of one group hang on one beam. */
  readonly group: number;
  /** Which tuplet of its bar it is in; null for none. */
  readonly tuplet: number | null;
}

/** So many notes in the time of so many. */
export interface Tuplet {
  readonly notes: 3 | 5;
  readonly inTimeOf: 2 | 4;
}

export interface WrittenBar {
  readonly number: number;
  readonly section: string;
  /** In ticks. */
  readonly start: Ticks;
  readonly length: Ticks;
  readonly meter: Meter;
  readonly pieces: readonly Piece[];
  readonly tuplets: readonly Tuplet[];
}

/** Sound or silence between two times of a bar. */
interface Stretch {
  readonly from: number;
  readonly to: number;
  readonly notes: readonly number[];
}

type Value = Pick<Piece, 'value' | 'dots'>;
const VALUES: readonly NoteValue[] = [1, 2, 4, 8, 16, 32, 64];
/** The shortest value that is written, as a part of a quarter. */
const FINEST = 16;

/** Ticks of a quarter, where the beat is one of so many in a whole note. */
export const quarterOf = ({ unit }: Pick<Meter, 'unit'>): number => (TICKS * unit) / 4;

/** The one value, plain or dotted, that lasts so long; null where there is none. */
function valueOf(ticks: Ticks, quarter: number): Value | null {
  for (const value of VALUES) {
    const plain = (quarter * 4) / value;
    if (plain === ticks) return { value, dots: 0 };
    if (plain * 1.5 === ticks && value < 64) return { value, dots: 1 };
  }
  return null;
}

/** The value that lasts about so long. */
function nearestValue(ticks: Ticks, quarter: number): Value {
  const off = (value: NoteValue) => Math.abs(Math.log(ticks / ((quarter * 4) / value)));
  return { value: VALUES.reduce((best, value) => (off(value) < off(best) ? value : best)), dots: 0 };
}

/**
 * A line over the bars of a form; bars are added where it runs on behind them, or as far as `until`, and before the first where it begins with
 * a pickup, or as far as `since`: bar 0 is the one before bar 1. `unit` is the beat that its ticks count.
 */
export function writtenBars(
  notes: readonly LineNote[],
  bars: readonly Pick<PlayedBar, 'number' | 'section' | 'start' | 'beats' | 'meter'>[],
  { unit }: Pick<Meter, 'unit'>,
  until = 0,
  since = 0
): WrittenBar[] {
  const quarter = quarterOf({ unit });
  const sounds = stretches(notes);
  const all = bars.map(({ number, section, start, beats, meter }) => {
    const from = ticksOf(start);
    return { number, section, start: from, length: ticksOf(start + beats) - from, meter };
  });
  const end = Math.max(until, sounds.at(-1)?.to ?? 0);
  const begin = Math.min(since, sounds[0]?.from ?? 0);
  for (let first = all[0]; first && first.start > begin; first = all[0]) {
    all.unshift({ ...first, number: first.number - 1, section: '', start: first.start - first.length });
  }
  for (let last = all.at(-1); last && last.start + last.length < end; last = all.at(-1)) {
    all.push({ ...last, number: last.number + 1, start: last.start + last.length });
  }
  let at = 0;
  return all.map((bar) => {
    const to = bar.start + bar.length;
    while (at < sounds.length && nth(sounds, at).to <= bar.start) at++;
    const within: Stretch[] = [];
    for (let i = at; i < sounds.length && nth(sounds, i).from < to; i++) {
      const { from, to: until, notes: own } = nth(sounds, i);
      within.push({
        from: Math.max(from, bar.start) - bar.start,
        to: Math.min(until, to) - bar.start,
        notes: own
      });
    }
    return { ...bar, ...writeBar(withRests(within, bar.length), bar, notes, quarter) };
  });
}

/** What sounds when: notes of one start together, each until the next begins. */
function stretches(notes: readonly LineNote[]): Stretch[] {
  const starts = new Map<number, number[]>();
  notes.forEach(({ start }, i) => starts.set(start, [...(starts.get(start) ?? []), i]));
  const inOrder = [...starts].sort(([a], [b]) => a - b);
  return inOrder.map(([from, own], i) => {
    const longest = Math.max(...own.map((note) => endOf(nth(notes, note))));
    return { from, to: Math.min(longest, inOrder[i + 1]?.[0] ?? Infinity), notes: own };
  });
}

function withRests(sounds: readonly Stretch[], length: Ticks): Stretch[] {
  const filled: Stretch[] = [];
  let at = 0;
  for (const sound of sounds) {
    if (sound.from > at) filled.push({ from: at, to: sound.from, notes: [] });
    filled.push(sound);
    at = sound.to;
  }
  if (at < length) filled.push({ from: at, to: length, notes: [] });
  return filled;
}

/** A part of a bar that is written by itself. */
interface Cell {
  readonly from: number;
  readonly to: number;
}

/**
 * The parts of a bar that have to be seen: halves of quarters, dotted quarters where the beats go by three, the rest as it comes.
 */
function groupsOf(length: Ticks, meter: Meter, quarter: number): Cell[] {
  const eighth = quarter / 2;
  const size = meter.unit >= 8 ? ((length / eighth) % 3 === 0 ? 3 * eighth : quarter) : 2 * quarter;
  const groups: Cell[] = [];
  for (let from = 0; from < length; from += size) groups.push({ from, to: Math.min(length, from + size) });
  const last = groups.at(-1);
  // Five and seven eighths end on three.
  if (meter.unit >= 8 && last && groups.length > 1 && last.to - last.from === eighth) {
    groups.splice(-2, 2, { from: sure(groups.at(-2), 'groups').from, to: length });
  }
  return groups;
}

const isOn = (grid: number, times: readonly number[]) => times.every((time) => time % grid === 0);

/** How the inside of a cell is written: its tuplet, and the borders that must be seen, the coarsest first. */
interface Writing {
  readonly tuplet: Tuplet | null;
  readonly borders: readonly number[];
  /** Times within are so much longer as they are written. */
  readonly scale: number;
  /** Notes of at least this length begin on its multiples. */
  readonly aligned?: number;
}

const halving = (from: number) => Array.from({ length: 8 }, (_, n) => from / 2 ** n);

/** How a cell can be written in usual values; null where it cannot. */
function writingOf(cell: Cell, times: readonly number[], quarter: number): Writing | null {
  const length = cell.to - cell.from;
  const inside = times.filter((time) => time > cell.from && time < cell.to).map((time) => time - cell.from);
  const eighth = quarter / 2;
  const isByThree = length === 3 * eighth;
  if (length > quarter && !isByThree) {
    if (isOn(eighth, inside)) return { tuplet: null, borders: halving(quarter), scale: 1 };
  } else if (isOn(quarter / FINEST, [...inside, length])) {
    return isByThree
      ? { tuplet: null, borders: halving(eighth), scale: 1, aligned: eighth }
      : { tuplet: null, borders: halving(eighth), scale: 1 };
  }
  if (isByThree || valueOf(length, quarter)?.dots !== 0) return null;
  const third = length / 3;
  // What has a border in its middle goes by halves, each written by itself.
  const goesByHalves = inside.includes(length / 2);
  if (isOn(length > quarter ? third : third / 4, inside) && !goesByHalves) {
    const borders = halving(third * 1.5);
    return { tuplet: { notes: 3, inTimeOf: 2 }, borders, scale: 1.5, aligned: third * 1.5 };
  }
  if (length === quarter && isOn(length / 5, inside)) {
    return { tuplet: { notes: 5, inTimeOf: 4 }, borders: halving(quarter / 4), scale: 1.25 };
  }
  return null;
}

/**
 * Pieces of a stretch in a cell, cut where its values and the borders ask for it; times are those that are written. A note may stand
 * across a border where one value says it; silence may not.
 */
function cut(stretch: Stretch, writing: Writing, quarter: number): readonly (Value & Cell)[] {
  const { from, to, notes } = stretch;
  const { borders, aligned } = writing;
  const length = to - from;
  const whole = valueOf(length, quarter);
  const stands = aligned
    ? length < aligned || from % aligned === 0
    : notes.length > 0 || (whole?.dots === 0 && from % length === 0);
  if (whole && stands) return [{ ...whole, from, to }];
  for (const border of borders) {
    const at = (Math.floor(from / border) + 1) * border;
    if (at >= to) continue;
    return [
      ...cut({ from, to: at, notes }, writing, quarter),
      ...cut({ from: at, to, notes }, writing, quarter)
    ];
  }
  return [{ ...nearestValue(length, quarter), from, to }];
}

function writeBar(
  all: readonly Stretch[],
  bar: Pick<WrittenBar, 'start' | 'length' | 'meter'>,
  notes: readonly LineNote[],
  quarter: number
): Pick<WrittenBar, 'pieces' | 'tuplets'> {
  const tuplets: Tuplet[] = [];
  const pieces: Piece[] = [];
  let group = 0;
  const begun = (index: number, at: number) => nth(notes, index).start === bar.start + at;
  const add = ({ from, to, value, dots }: Value & Cell, own: readonly number[], tuplet: number | null) => {
    const isFirst = own.some((note) => begun(note, from));
    pieces.push({
      start: bar.start + from,
      length: to - from,
      value,
      dots,
      notes: own,
      isFirst,
      isTied: own.length > 0 && (!isFirst || own.every((note) => nth(notes, note).tie === true)),
      group,
      tuplet
    });
  };
  const only = all[0];
  if (all.length === 1 && only?.notes.length === 0) {
    // A bar of silence has one rest, however long it is.
    add({ ...(valueOf(bar.length, quarter) ?? { value: 1, dots: 0 }), from: 0, to: bar.length }, [], null);
    return { pieces, tuplets };
  }
  const times = all.flatMap(({ from, to }) => [from, to]);
  const write = (cell: Cell): void => {
    const parts = all
      .filter(({ from, to }) => from < cell.to && to > cell.from)
      .map((one) => ({ ...one, from: Math.max(one.from, cell.from), to: Math.min(one.to, cell.to) }));
    const writing = writingOf(cell, times, quarter);
    const half = cell.from + (cell.to - cell.from) / 2;
    const isSmall = cell.to - cell.from <= quarter / 2;
    if (!writing && !isSmall && cell.to - cell.from !== 1.5 * quarter) {
      write({ from: cell.from, to: half });
      write({ from: half, to: cell.to });
      return;
    }
    if (!writing && cell.to - cell.from === 1.5 * quarter) {
      for (const n of [0, 1, 2]) {
        write({ from: cell.from + (n * quarter) / 2, to: cell.from + ((n + 1) * quarter) / 2 });
      }
      return;
    }
    group++;
    if (!writing) {
      for (const part of parts)
        add({ ...nearestValue(part.to - part.from, quarter), ...part }, part.notes, null);
      return;
    }
    const { scale, tuplet } = writing;
    const isWhole = parts.length === 1;
    const inTuplet = tuplet && !isWhole ? tuplets.push(tuplet) - 1 : null;
    const by = inTuplet === null ? 1 : scale;
    for (const part of parts) {
      const [from, to] = [(part.from - cell.from) * by, (part.to - cell.from) * by];
      for (const one of cut({ from, to, notes: part.notes }, writing, quarter)) {
        add(
          { value: one.value, dots: one.dots, from: cell.from + one.from / by, to: cell.from + one.to / by },
          part.notes,
          inTuplet
        );
      }
    }
  };
  for (const cell of groupsOf(bar.length, bar.meter, quarter)) write(cell);
  return { pieces: joined(pieces, bar, quarter), tuplets };
}

/** Joins what the halves of a bar have cut though one value says it plainly: whole quarters that end or begin the bar, and a half in its middle. */
function joined(
  pieces: readonly Piece[],
  { start, length }: Pick<WrittenBar, 'start' | 'length'>,
  quarter: number
): Piece[] {
  const out: Piece[] = [];
  for (const piece of pieces) {
    const before = out.at(-1);
    const from = before ? before.start - start : 0;
    const together = before ? before.length + piece.length : 0;
    const isOne =
      before && before.notes.length > 0 && before.notes === piece.notes && piece.isTied && !piece.isFirst;
    const value = valueOf(together, quarter);
    const isPlain =
      isOne &&
      value &&
      before.tuplet === null &&
      piece.tuplet === null &&
      isOn(quarter, [from, together]) &&
      (together === 2 * quarter || from === 0 || from + together === length);
    if (isPlain) out.splice(-1, 1, { ...before, ...value, length: together });
    else out.push(piece);
  }
  return out;
}
