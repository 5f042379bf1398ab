/** Lines under a plan: its choices, its hand, its targets and rules. What a level of line is found in, for the page and the routes. */
import { readMelody } from '../line/melody';
import { notesInBeat } from '../line/model';
import { fingered, type FoundLine, type FoundLines } from '../line/find/find';
import { DEFAULT_FIGURE } from '../line/find/levels';
import { figureOf, firstDegree } from '../line/find/figures';
import type { Motif } from '../line/find/motif';
import type { LineArea } from '../line/find/pool';
import { findLines, type LevelId } from '../line/find/registry';
import type { PlacedNote } from '../line/place';
import { changeHeardAt } from '../line/read';
import { findTargets, type TargetPath } from '../targets/path';
import type { ApproachNotes } from '../line/approach-notes';
import type { Arrangement } from './arrange';

export interface LineWish {
  readonly level: LevelId;
  readonly figure?: string | undefined;
  /** Notes in a quarter. */
  readonly subdivision: number;
  readonly seed: number;
  readonly alternatives: number;
  /** Changes, both in; to the ends where they are left out. */
  readonly from?: number | undefined;
  readonly to?: number | undefined;
  /** Bars of a phrase; as the level has it where nothing is said, 0 for none. */
  readonly phrase?: number | undefined;
  readonly motif?: Motif | undefined;
}

/** The target line a line is found through, and how it is led into. */
export interface LineTargets {
  /** The best first. */
  readonly paths: readonly TargetPath[];
  /** Approach notes that the player has asked for. */
  readonly asked: (path: TargetPath) => ApproachNotes;
  /** Those that fit, where none are asked for. */
  readonly fitting: (path: TargetPath) => ApproachNotes;
}

export interface PlacedLine extends Omit<FoundLine, 'notes'> {
  readonly notes: readonly PlacedNote[];
}

/** The lines of a level over an arranged chart, in an area, through target lines; with places and fingers. */
export function linesOver(
  { sheet, analysis, chosen, neck }: Pick<Arrangement, 'sheet' | 'analysis' | 'chosen' | 'neck'>,
  areaOf: (change: number) => LineArea,
  { paths, asked, fitting }: LineTargets,
  wish: LineWish
): Omit<FoundLines, 'lines'> & { readonly lines: readonly PlacedLine[] } {
  const { head, form } = sheet;
  const [path] = paths;
  if (!path) return { lines: [] };
  const last = analysis.changes.length - 1;
  const { subdivision, from = 0, to = last } = wish;
  const found = findLines(wish.level, {
    ...wish,
    ground: { form, analysis, chosen },
    meter: head.meter,
    neck,
    areaOf,
    path,
    paths,
    approaches: asked(path),
    leadInto: fitting,
    perBeat: notesInBeat(subdivision, head.meter.unit),
    feel: head.feel,
    from,
    to: Math.min(to, last),
    melody: head.melody === null ? null : readMelody(head.melody, form, head.meter).line
  });
  const areaAt = (note: Parameters<typeof changeHeardAt>[0]) => areaOf(changeHeardAt(note, analysis.changes));
  return {
    ...found,
    lines: found.lines.map((line) => ({ ...line, notes: fingered(line.notes, neck, areaAt) }))
  };
}

/** The lines of a level as the plan would have them. */
export function linesOf(arranged: Arrangement, wish: LineWish): ReturnType<typeof linesOver> {
  const { plan, hands, analysis } = arranged;
  const figure = wish.level === 'figure' ? (figureOf(wish.figure ?? '') ?? DEFAULT_FIGURE) : null;
  const options = arranged.targetOptions(plan.thread);
  const isThin = wish.level === 'skeleton' || wish.level === 'led in';
  const { paths, noPath } = findTargets(analysis, {
    ...options,
    // A figure begins where it begins, on the first of its tones.
    ...(figure ? { degrees: [firstDegree(figure)], column: null, alternate: false, fixed: [] } : {}),
    ...(wish.level === 'sequence' ? { position: null } : {}),
    alternatives: isThin ? wish.alternatives : 1
  });
  if (noPath) return { lines: [], noLine: noPath };
  const isBound = plan.reach === 'hand' && wish.level !== 'sequence';
  const areaOf = (change: number): LineArea => ({
    position: isBound ? hands[change] : undefined,
    range: plan.range ?? undefined,
    strings: options.strings ?? undefined
  });
  const wished = arranged.approachNotes;
  return linesOver(arranged, areaOf, { paths, asked: wished, fitting: fittingOr(arranged) }, wish);
}

/** The approach notes of the plan; those that fit where it has none. */
function fittingOr({ approachNotes, fittingNotes }: Arrangement) {
  return (path: TargetPath) => {
    const own = approachNotes(path);
    return own.size ? own : fittingNotes(path);
  };
}
