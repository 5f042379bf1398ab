/** How a score breaks into systems and how high each of them is: reckoned before anything is drawn. */
import { nth } from '$lib/core/base/list';
import type { LineNote } from '$lib/core/line/model';
import type { Piece, WrittenBar } from '$lib/core/line/notation';
import { staffPitch, stepOf } from '$lib/core/line/staff';

/** Pixels. */
export const STAFF_GAP = 10;
export const TAB_GAP = 12;
const CHORDS = 30;
const PAD = 8;
/** Between staff and tab, where bends and slurs stand. */
const BETWEEN = 26;
const DEGREES = 24;
/** Of a double stop's other note. */
const SECOND_DEGREE = 13;
/** Of a bar that has nothing in it, and of the lines at its ends. */
const EMPTY_BAR = 70;
const BAR_ENDS = 26;
/** What a clef takes at the head of every system, and each accidental of the signature. */
const CLEF = 52;
const PER_ACCIDENTAL = 10;
const METER = 26;
/** A chord symbol and the gap behind it. */
const PER_CHORD_LETTER = 11;
const CHORD_GAP = 12;
/** Written an octave above where they sound, these steps above middle C are the lines at the staff's edges: E4 and F5. */
const [LOWEST_LINE, HIGHEST_LINE] = [2, 10];
const OCTAVE = 7;
const STEM = 32;
/** The number over three in the time of two. */
const TUPLET = 18;

/** The room that a piece wants, by its value. */
const PIECE_ROOM: Readonly<Record<Piece['value'], number>> = {
  1: 58,
  2: 44,
  4: 36,
  8: 29,
  16: 26,
  32: 24,
  64: 24
};

export interface System {
  readonly bars: readonly WrittenBar[];
  /** Width of each of its bars as drawn, the first with the clef. */
  readonly widths: readonly number[];
  readonly isFirst: boolean;
  /** Its last note is held into the next system. */
  readonly goesOn: boolean;
  /** Middle of the chord symbols, top line of the staff, of the tab, and the degrees' own line. */
  readonly chordsAt: number;
  readonly staffAt: number;
  readonly tabAt: number;
  readonly degreesAt: number;
  readonly height: number;
}

export interface ScoreMeasures {
  readonly width: number;
  readonly fifths: number;
  readonly strings: number;
  readonly hasDegrees: boolean;
  /** Symbols of the chords that begin in a bar. */
  readonly chordsIn: (bar: WrittenBar) => readonly string[];
}

const headOf = (fifths: number, hasMeter: boolean) =>
  CLEF + Math.abs(fifths) * PER_ACCIDENTAL + (hasMeter ? METER : 0);

const hasMeterOf = (bar: WrittenBar, before: WrittenBar | undefined) =>
  !before || before.meter.beats !== bar.meter.beats || before.meter.unit !== bar.meter.unit;

/** The least width that a bar can be read at. */
function leastWidth(bar: WrittenBar, chords: readonly string[]): number {
  const isEmpty = bar.pieces.every(({ notes }) => notes.length === 0);
  const room = isEmpty
    ? EMPTY_BAR
    : bar.pieces.reduce((sum, { value, dots }) => sum + PIECE_ROOM[value] + 6 * dots, 0);
  const named = chords.reduce((sum, symbol) => sum + symbol.length * PER_CHORD_LETTER + CHORD_GAP, 0);
  return Math.max(room, named) + BAR_ENDS;
}

/** Breaks bars into systems: as many as have room on each, spread over its width; the last is not drawn out. */
export function systemsOf(
  bars: readonly WrittenBar[],
  notes: readonly LineNote[],
  { width, fifths, strings, hasDegrees, chordsIn }: ScoreMeasures
): System[] {
  const rows: { bars: WrittenBar[]; least: number[]; head: number }[] = [];
  bars.forEach((bar, i) => {
    const hasMeter = hasMeterOf(bar, bars[i - 1]);
    const least = leastWidth(bar, chordsIn(bar)) + (hasMeter && i > 0 ? METER : 0);
    const row = rows.at(-1);
    const taken = row ? row.head + row.least.reduce((a, b) => a + b, 0) : Infinity;
    if (row && taken + least <= width) {
      row.bars.push(bar);
      row.least.push(least);
    } else rows.push({ bars: [bar], least: [least], head: headOf(fifths, i === 0) });
  });
  const usual = Math.max(1, ...rows.slice(0, -1).map((row) => row.bars.length));
  return rows.map((row, i) => {
    const sum = row.least.reduce((a, b) => a + b, 0);
    const isLast = i === rows.length - 1 && rows.length > 1;
    // A last system of few bars keeps the bars' usual width.
    const share = isLast && row.bars.length < usual ? row.bars.length / usual : 1;
    const room = Math.max(sum, (width - row.head) * share);
    const widths = row.least.map((least, n) => (least * room) / sum + (n === 0 ? row.head : 0));
    const goesOn = rows[i + 1]?.bars[0]?.pieces[0]?.isTied === true;
    return {
      bars: row.bars,
      widths,
      isFirst: i === 0,
      goesOn,
      ...heights(row.bars, notes, strings, hasDegrees)
    };
  });
}

function heights(
  bars: readonly WrittenBar[],
  notes: readonly LineNote[],
  strings: number,
  hasDegrees: boolean
) {
  const steps = bars.flatMap(({ pieces }) =>
    pieces.flatMap((piece) => piece.notes.map((index) => stepOf(staffPitch(nth(notes, index))) + OCTAVE))
  );
  const over = Math.max(0, Math.max(HIGHEST_LINE, ...steps) - HIGHEST_LINE) * (STAFF_GAP / 2);
  const under = Math.max(0, LOWEST_LINE - Math.min(LOWEST_LINE, ...steps)) * (STAFF_GAP / 2);
  const middle = (LOWEST_LINE + HIGHEST_LINE) / 2;
  // Stems go up from low notes and down from high ones, and past the staff's edge where the note is near it.
  const hasLow = steps.some((step) => step < middle && step > middle - 4);
  const hasHigh = steps.some((step) => step >= middle && step < middle + 4);
  const chordsAt = 20;
  const brackets = bars.some(({ tuplets }) => tuplets.length > 0) ? TUPLET : 0;
  const staffAt = CHORDS + Math.max(over + PAD, hasLow ? STEM - STAFF_GAP : PAD) + brackets;
  const foot = Math.max(under, hasHigh ? STEM - 2 * STAFF_GAP : 0);
  const tabAt = staffAt + 4 * STAFF_GAP + foot + BETWEEN;
  const tabEnd = tabAt + (strings - 1) * TAB_GAP;
  const degreesAt = tabEnd + 22;
  const second = bars.some(({ pieces }) => pieces.some((piece) => piece.notes.length > 1))
    ? SECOND_DEGREE
    : 0;
  return {
    chordsAt,
    staffAt,
    tabAt,
    degreesAt,
    height: tabEnd + (hasDegrees ? DEGREES + second : 0) + PAD + 4
  };
}
