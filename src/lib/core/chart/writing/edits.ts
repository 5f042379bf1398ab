/**
 * Edits of a chart on its bars: each takes a text and gives a text in which what was asked for has changed and nothing else. Bars are
 * counted from 0 in the order in which they are written. Source of the rules: docs/music-rules.md, Writing on bars.
 */
import { lastOf, nth, sure } from '../../base/list';
import { wordsOf } from '../bar-line';
import type { Cell } from '../model';
import { readChart } from '../read';
import { cellsFor, type Placed } from './beats';
import { writtenBars, type WrittenBar } from './bars';
import {
  linesOf,
  newLine,
  newRow,
  partRow,
  rowAt,
  rowIn,
  spotsIn,
  textOf,
  unitOf,
  type Spot,
  type TextLines,
  type Unit
} from './text-lines';

/** A stretch of bars, both in. */
export interface Stretch {
  readonly from: number;
  readonly to: number;
}

/** Bars that were cut or copied. */
export type Clip = readonly Unit[];

/** Bars of a row that is begun. */
const ROW = 4;

/** The written bars of a text, in their order. */
export const barsOf = (text: string): WrittenBar[] => writtenBars(readChart(text).chart);

/** What can stand in a bar: no bar lines, no braces, and no line breaks. */
const barText = (typed: string) => typed.replaceAll(/[|{}\r\n\t]+/g, ' ').trim();

/** Typed words as the cells of a bar: chords, `.` and `/`, `%` and `%%`. */
export function cellsIn(typed: string): Cell[] {
  return wordsOf(barText(typed)).map(({ text }): Cell => {
    if (text === '.' || text === '/') return { kind: 'hold', mark: text };
    if (text === '%' || text === '%%') return { kind: 'repeat-bars', count: text === '%' ? 1 : 2 };
    return { kind: 'chord', symbol: text };
  });
}

function edited(text: string, work: (lines: TextLines, spots: readonly Spot[]) => void): string {
  const lines = linesOf(text);
  work(lines, spotsIn(lines));
  const written = textOf(lines);
  return written === text ? text : written;
}

/** What stands in a bar, as cells. */
export const writeCells = (text: string, bar: number, cells: readonly Cell[]): string =>
  edited(text, (lines, spots) => {
    const spot = spots[bar];
    if (spot) nth(rowAt(lines, spot.line).units, spot.at).cells = cells;
  });

/** What stands in a bar, as chords at beats of its meter. */
export function writeChords(text: string, bar: number, chords: readonly Placed[]): string {
  const own = barsOf(text)[bar];
  return own ? writeCells(text, bar, cellsFor(chords, own.meter)) : text;
}

/** Bars put behind another one; −1 before the first. In a chart without bars they begin a grid. */
export const insertAfter = (text: string, bar: number, clip: Clip): string =>
  edited(text, (lines, spots) => {
    const units = clip.map((unit) => ({ ...unit }));
    if (units.length === 0) return;
    const spot = spots[Math.min(bar, spots.length - 1)];
    if (spots.length === 0) begin(lines, units);
    else if (!spot) {
      const [first] = spots as [Spot];
      rowAt(lines, first.line).units.splice(first.at, 0, ...units);
    } else put(lines, spot, units);
  });

/** Behind a bar: in its row, or where it ends a full row, in rows of their own. */
function put(lines: TextLines, { line, at }: Spot, units: Unit[]): void {
  const row = rowIn(lines, line);
  const isLast = at === row.units.length - 1;
  // A form ends where it ends: its final line goes to the new last bar.
  if (isLast && nth(row.units, at).style === 'final') {
    nth(row.units, at).style = 'single';
    lastOf(units).style = 'final';
  }
  if (!isLast || row.units.length < ROW) {
    rowAt(lines, line).units.splice(at + 1, 0, ...units);
    return;
  }
  rowAt(lines, line);
  const rows = [];
  for (let from = 0; from < units.length; from += ROW) rows.push(newRow(units.slice(from, from + ROW)));
  // What follows the last bar stays behind it.
  const last = sure(lastOf(rows).row, 'the row of new bars');
  last.right = row.right;
  last.trail = row.trail;
  row.right = '';
  row.trail = { repeatStart: false, ending: [] };
  lines.lines.splice(line + 1, 0, ...rows);
}

function begin(lines: TextLines, units: Unit[]): void {
  const isOpen = lines.lines.findLastIndex(({ line }) => line.kind === 'grid-start');
  const row = newRow(units);
  const closes = isOpen >= 0 && lines.lines[isOpen + 1]?.line.kind === 'grid-end';
  if (closes) lines.lines.splice(isOpen + 1, 0, row);
  else
    lines.lines.push(
      newLine({ kind: 'grid-start', label: '', rest: '' }),
      row,
      newLine({ kind: 'grid-end' })
    );
}

/** The bars of a stretch with the marks that are whole within it: a repeat from its start to its end, and its endings. */
export function copyBars(text: string, { from, to }: Stretch): Clip {
  const lines = linesOf(text);
  const spots = spotsIn(lines).slice(from, to + 1);
  const units = spots.map(({ line, at }) => ({
    ...nth(rowIn(lines, line).units, at),
    style: 'single' as const
  }));
  const { starts, ends } = unpaired(units);
  return units.map((unit, i) => ({
    ...unit,
    repeatStart: unit.repeatStart && !starts.includes(i),
    repeatEnd: unit.repeatEnd && !ends.includes(i),
    ending: starts.length || ends.length || !units.some(({ repeatEnd }) => repeatEnd) ? [] : unit.ending
  }));
}

/** All bars of a text, to be put into another one; none where it has none. */
export const allBars = (text: string): Clip =>
  copyBars(text, { from: 0, to: Math.max(0, barsOf(text).length - 1) });

/** Bars as a line of text, for other programs and other charts: "| Fm7 | Bb7 |". */
export function clipText(clip: Clip): string {
  const [line] = textOf({
    lines: [newRow(clip.map((unit) => ({ ...unit })))],
    isTidy: false,
    end: '\n',
    isClosed: false
  }).split('\n');
  return (line ?? '').replaceAll(/ +/g, ' ');
}

/** Which bars of a stretch begin a repeat that ends behind it, or end one that began before it. */
function unpaired(units: readonly Unit[]): { starts: number[]; ends: number[] } {
  const starts: number[] = [];
  const ends: number[] = [];
  let isOpen = false;
  units.forEach((unit, i) => {
    if (unit.repeatStart) {
      starts.push(i);
      isOpen = true;
    }
    if (!unit.repeatEnd) return;
    if (isOpen || ends.length === 0) {
      if (starts.length) starts.pop();
      else ends.push(i);
    }
    isOpen = false;
  });
  return { starts, ends };
}

/** Without a stretch of bars. A repeat that began or ended in it goes on to the bar beside it. */
export const deleteBars = (text: string, { from, to }: Stretch): string =>
  edited(text, (lines, spots) => {
    const unitAt = (bar: number) => {
      const spot = spots[bar];
      return spot ? nth(rowAt(lines, spot.line).units, spot.at) : undefined;
    };
    const gone = spots.slice(from, to + 1).map(({ line, at }) => nth(rowIn(lines, line).units, at));
    if (gone.length === 0) return;
    const { starts, ends } = unpaired(gone);
    const [before, after] = [unitAt(from - 1), unitAt(to + 1)];
    if (after && starts.length) after.repeatStart = true;
    if (before && ends.length && !before.repeatEnd) before.repeatEnd = true;
    // The rest of an ending keeps its number; an ending that is gone whole is gone.
    const open = gone.findLast(({ ending }) => ending.length > 0);
    if (after && open && after.ending.length === 0 && !lastOf(gone).repeatEnd && !endsForm(gone))
      after.ending = open.ending;
    if (before && lastOf(gone).style !== 'single' && before.style === 'single')
      before.style = lastOf(gone).style;
    for (const { line, at } of spots.slice(from, to + 1).reverse()) rowAt(lines, line).units.splice(at, 1);
  });

const endsForm = (units: readonly Unit[]) => lastOf(units).style === 'final';

/** A stretch taken out and put behind another bar (−1: before the first), which lies outside it. */
export function moveBars(text: string, stretch: Stretch, behind: number): string {
  const { from, to } = stretch;
  if (behind >= from - 1 && behind <= to) return text;
  const clip = copyBars(text, stretch);
  const count = to - from + 1;
  return insertAfter(deleteBars(text, stretch), behind > to ? behind - count : behind, clip);
}

/** A chord taken from its bar to a beat of the same or another one, where it takes the place of what begins there. */
export function moveChord(
  text: string,
  from: { readonly bar: number; readonly chord: number },
  to: { readonly bar: number; readonly beat: number }
): string {
  const bars = barsOf(text);
  const [own, goal] = [bars[from.bar], bars[to.bar]];
  const chord = own?.chords[from.chord];
  if (!own || !goal || !chord) return text;
  const left = own.chords.filter((_, i) => i !== from.chord);
  const there = (from.bar === to.bar ? left : goal.chords).filter(({ beat }) => beat !== to.beat);
  const placed = [...there, { symbol: chord.symbol, beat: to.beat }];
  const taken = from.bar === to.bar ? text : writeChords(text, from.bar, left);
  return writeChords(taken, to.bar, placed);
}

/** All chord symbols of a stretch, each turned into another one. */
export const eachSymbol = (text: string, { from, to }: Stretch, turn: (symbol: string) => string): string =>
  edited(text, (lines, spots) => {
    for (const { line, at } of spots.slice(from, to + 1)) {
      const unit = nth(rowIn(lines, line).units, at);
      const cells = unit.cells.map((cell) =>
        cell.kind === 'chord' ? { ...cell, symbol: turn(cell.symbol) } : cell
      );
      const isSame = cells.every((cell, i) => {
        const before = nth(unit.cells, i);
        return cell.kind !== 'chord' || before.kind !== 'chord' || cell.symbol === before.symbol;
      });
      if (!isSame) nth(rowAt(lines, line).units, at).cells = cells;
    }
  });

/** A stretch without its chords; its bars stay. */
export const clearBars = (text: string, { from, to }: Stretch): string =>
  edited(text, (lines, spots) => {
    for (const { line, at } of spots.slice(from, to + 1)) nth(rowAt(lines, line).units, at).cells = [];
  });

/** So many empty bars. */
export const emptyBars = (count: number): Clip => Array.from({ length: count }, () => unitOf([]));

/** Marks of a bar set: a repeat that begins or ends there, the rounds of an ending, the bar line behind it. */
export const markBar = (
  text: string,
  bar: number,
  marks: Partial<Pick<Unit, 'repeatStart' | 'repeatEnd' | 'ending' | 'style'>>
): string =>
  edited(text, (lines, spots) => {
    const spot = spots[bar];
    if (spot) Object.assign(nth(rowAt(lines, spot.line).units, spot.at), marks);
  });

/** A stretch to be played twice; marks of repeats inside it are gone. */
export function repeatStretch(text: string, { from, to }: Stretch): string {
  let next = text;
  for (let bar = from; bar <= to; bar++) next = markBar(next, bar, { repeatStart: false, repeatEnd: false });
  return markBar(markBar(next, from, { repeatStart: true }), to, { repeatEnd: true });
}

/** A stretch without repeats and endings. */
export function unrepeatStretch(text: string, { from, to }: Stretch): string {
  let next = text;
  for (let bar = from; bar <= to; bar++)
    next = markBar(next, bar, { repeatStart: false, repeatEnd: false, ending: [] });
  return next;
}

/** Words that lead through the form, left of a bar ("Segno", "Coda") or right of it ("To Coda", "Fine", "D.C."); empty takes them away. */
export const setWord = (text: string, bar: number, side: 'left' | 'right', word: string): string =>
  edited(text, (lines, spots) => {
    const spot = spots[bar];
    if (!spot) return;
    const plain = barText(word);
    if (side === 'left') {
      if (!plain && spot.at > 0) return;
      rowAt(lines, partRow(lines, spot)).left = plain;
      return;
    }
    const isLast = spot.at === rowIn(lines, spot.line).units.length - 1;
    if (!plain && !isLast) return;
    if (!isLast) partRow(lines, { line: spot.line, at: spot.at + 1 });
    rowAt(lines, spot.line).right = plain;
  });
