/** Sections, meters inside the form, and remarks: the lines of a chart between its rows. Source: docs/music-rules.md, Writing on bars. */
import { nth } from '../../base/list';
import { declarationOf, writeDirective } from '../directives';
import { DEFAULT_METER, type ChartLine, type Meter } from '../model';
import { chartHead, readChart } from '../read';
import { isSameMeter, remarkIn, writtenBars } from './bars';
import { linesOf, newLine, partRow, spotsIn, textOf, type TextLine, type TextLines } from './text-lines';

const plainLine = (text: string) => text.replaceAll(/[{}\s]+/g, ' ').trim();

function edited(text: string, work: (lines: TextLines) => void): string {
  const lines = linesOf(text);
  work(lines);
  return textOf(lines);
}

const isBetween = ({ line }: TextLine) =>
  line.kind === 'directive' || (line.kind === 'text' && line.text.trim() === '');

/** The grid that a line stands in, as the index of its first line; −1 outside all. */
function gridOf({ lines }: TextLines, at: number): number {
  for (let i = at; i >= 0; i--) {
    if (nth(lines, i).line.kind === 'grid-end' && i < at) return -1;
    if (nth(lines, i).line.kind === 'grid-start') return i;
  }
  return -1;
}

/**
 * Names the section that begins at a bar: the section it opens gets another label, or the one it stands in is parted there. In a text
 * without grids the bars from there on come to stand in one.
 */
export const nameSection = (text: string, bar: number, label: string): string =>
  edited(text, (own) => {
    const spot = spotsIn(own)[bar];
    if (!spot) return;
    const name = plainLine(label);
    const grid = gridOf(own, spot.line);
    const isFirst =
      grid >= 0 && spot.at === 0 && own.lines.slice(grid + 1, spot.line).every(({ row }) => row === null);
    if (isFirst) {
      const start = nth(own.lines, grid);
      if (start.line.kind !== 'grid-start') return;
      own.lines[grid] = { ...start, typed: null, line: { ...start.line, label: name } };
      return;
    }
    const line = partRow(own, spot);
    // Meters and remarks that stand before the bar go with it.
    let from = line;
    while (from > 0 && nth(own.lines, from - 1).line.kind === 'directive') from -= 1;
    const opening = newLine({ kind: 'grid-start', label: name, rest: '' });
    if (grid >= 0) own.lines.splice(from, 0, newLine({ kind: 'grid-end' }), opening);
    else {
      const next = own.lines.findIndex(({ line: one }, i) => i > line && one.kind === 'grid-start');
      let end = next < 0 ? own.lines.length : next;
      while (end > line + 1 && nth(own.lines, end - 1).row === null) end -= 1;
      own.lines.splice(end, 0, newLine({ kind: 'grid-end' }));
      own.lines.splice(from, 0, opening);
    }
  });

/** Joins the section that begins at a bar to the one before it. The first section loses its label instead. */
export const joinSection = (text: string, bar: number): string =>
  edited(text, (own) => {
    const spot = spotsIn(own)[bar];
    const grid = spot ? gridOf(own, spot.line) : -1;
    if (grid < 0) return;
    let end = grid - 1;
    while (end >= 0 && isBetween(nth(own.lines, end))) end -= 1;
    const start = nth(own.lines, grid);
    if (end < 0 || nth(own.lines, end).line.kind !== 'grid-end') {
      if (start.line.kind === 'grid-start')
        own.lines[grid] = { ...start, typed: null, line: { ...start.line, label: '' } };
      return;
    }
    own.lines.splice(grid, 1);
    own.lines.splice(end, 1);
  });

/** The lines of every grid, from its start to its end, both in. */
function gridsOf({ lines }: TextLines): { from: number; to: number }[] {
  return lines.flatMap(({ line }, from) => {
    if (line.kind !== 'grid-start') return [];
    const to = lines.findIndex((one, i) => i > from && one.line.kind === 'grid-end');
    return to < 0 ? [] : [{ from, to }];
  });
}

/** Which grid a bar stands in, counted from 0; −1 where it stands in none. */
export function gridIndex(text: string, bar: number): number {
  const own = linesOf(text);
  const spot = spotsIn(own)[bar];
  return spot ? gridsOf(own).findIndex(({ from, to }) => spot.line > from && spot.line < to) : -1;
}

/** Takes a section, grid and all, to the place of another one. */
export const moveSection = (text: string, grid: number, to: number): string =>
  edited(text, (own) => {
    const grids = gridsOf(own);
    const [moved, goal] = [grids[grid], grids[to]];
    if (!moved || !goal || grid === to) return;
    const block = own.lines.slice(moved.from, moved.to + 1);
    if (to > grid) {
      own.lines.splice(goal.to + 1, 0, ...block);
      own.lines.splice(moved.from, block.length);
    } else {
      own.lines.splice(moved.from, block.length);
      own.lines.splice(goal.from, 0, ...block);
    }
  });

/** A section once more, behind itself. */
export const duplicateSection = (text: string, grid: number): string =>
  edited(text, (own) => {
    const found = gridsOf(own)[grid];
    if (!found) return;
    const block = own.lines
      .slice(found.from, found.to + 1)
      .map((line) => ({ ...line, end: line.end || own.end }));
    own.lines.splice(found.to + 1, 0, ...block);
  });

/** The directives that stand right before a bar, from the line in which it begins a row. */
function linesBefore({ lines }: TextLines, line: number): { line: ChartLine; at: number }[] {
  const found = [];
  for (let at = line - 1; at >= 0 && nth(lines, at).row === null; at--)
    found.push({ line: nth(lines, at).line, at });
  return found;
}

const eolOf = (text: string) => /\r\n|\r|\n/.exec(text)?.[0] ?? '\n';

/** A meter for some bars from one on; the meter before comes back behind them. */
export function setMeter(text: string, bar: number, meter: Meter, count = 1): string {
  const bars = writtenBars(readChart(text).chart);
  const own = bars[bar];
  if (!own) return text;
  const after = bars[bar + count];
  // The first meter that is said is that of the whole chart, so that it has to stand before all bars.
  const { lines: said } = readChart(text).chart;
  const isSaid = said
    .slice(
      0,
      Math.max(
        0,
        said.findIndex(({ kind }) => kind === 'bars')
      )
    )
    .some((line) => line.kind === 'directive' && declarationOf(line).name === 'time');
  const usual = `${DEFAULT_METER.beats}/${DEFAULT_METER.unit}`;
  const head = isSaid ? text : `${writeDirective({ name: 'time', value: usual })}${eolOf(text)}${text}`;
  const before = bars[bar - 1]?.meter ?? chartHead(readChart(head).chart).meter;
  return edited(head, (lines) => {
    const say = (index: number, said: Meter, isNeeded: boolean) => {
      const spot = spotsIn(lines)[index];
      if (!spot) return;
      const line = spot.at === 0 || isNeeded ? partRow(lines, spot) : -1;
      if (line < 0) return;
      // Other meters that stand there say nothing any more; but the first of all is the chart's own.
      const first = lines.lines.findIndex(
        ({ line: one }) => one.kind === 'directive' && declarationOf(one).name === 'time'
      );
      const old = linesBefore(lines, line).filter(
        ({ line: one, at }) => at !== first && one.kind === 'directive' && declarationOf(one).name === 'time'
      );
      if (isNeeded)
        lines.lines.splice(
          line,
          0,
          newLine({ kind: 'directive', name: 'time', value: `${said.beats}/${said.unit}` })
        );
      for (const { at } of old) lines.lines.splice(at, 1);
    };
    // From behind, so that what is counted before it stays where it is.
    if (after) say(bar + count, after.meter, !isSameMeter(after.meter, meter));
    for (let inside = bar + count - 1; inside > bar; inside--) say(inside, meter, false);
    say(bar, meter, !isSameMeter(before, meter));
  });
}

/** The remarks before a bar set anew, a line each; none takes them away. */
export const setNotes = (text: string, bar: number, notes: readonly string[]): string =>
  edited(text, (own) => {
    const spot = spotsIn(own)[bar];
    if (!spot) return;
    const said = notes.map(plainLine).filter(Boolean);
    const old =
      spot.at === 0 ? linesBefore(own, spot.line).filter(({ line }) => remarkIn(line) !== null) : [];
    if (said.length === 0 && old.length === 0) return;
    const line = partRow(own, spot);
    own.lines.splice(line, 0, ...said.map((value) => newLine({ kind: 'directive', name: 'comment', value })));
    for (const { at } of old) own.lines.splice(at, 1);
  });
