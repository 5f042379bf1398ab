/** The route of target paths: request in, core asked, answer out. Contract: docs/api.md. */
import { lastOf, nth } from '../../core/base/list';
import { skeletonLine } from '../../core/line/skeleton';
import { approachesOf, type ApproachWish } from '../../core/line/approach-notes';
import type { TargetsRequest } from '../../api/requests';
import { lineOut } from './line';
import { arrange } from '../../core/plan/arrange';
import { DEFAULT_PLAN } from '../../core/plan/model';
import { pinShift } from '../../core/plan/pin-times';
import { systemOf } from '../../core/neck/systems/registry';
import { tonesOfAll } from '../../core/moment/moment';
import { figuresOf, priceOf } from '../../core/targets/figures';
import type { AnalysedChange } from '../../core/harmony/analysis';
import type { Instrument } from '../../core/neck/tuning';
import { positionAt, type Candidate } from '../../core/targets/candidates';
import type { TargetOptions } from '../../core/targets/options';
import { findTargets, type Target } from '../../core/targets/path';
import { isDegree } from '../../core/theory/degree';
import { fail } from '../../api/errors';
import { checkPosition, checkStrings, instrumentFrom, sheetFrom } from './inputs';

/** POST /api/v1/targets */
export function answerTargets(input: TargetsRequest) {
  const sheet = sheetFrom(input.chart, input.key);
  const neck = instrumentFrom(input);
  // Approach notes are judged against what is played where nothing was chosen.
  const { analysis, chosen } = arrange({ sheet, plan: DEFAULT_PLAN }, neck, systemOf('positions'));
  const options = targetOptions(input, neck, analysis.changes);
  checkMoments(analysis.changes, options.every);
  const { paths, stages, noPath } = findTargets(analysis, options);
  const first = paths[0];
  /** Beats by which a target that is pinned early or late stands off its moment. */
  const shiftOf = (change: number, beat: number): number => {
    const pin = input.fixed.find((one) => one.change === change && (one.beat ?? 1) === beat);
    return pinShift(pin?.when, sheet.form);
  };
  return {
    paths: paths.map((path) => {
      const { cost, parts, targets } = path;
      const hands = analysis.changes.map(({ index }) => {
        const landed = targets.find(({ change }) => change === index)?.cell.fret ?? 1;
        return positionAt(options, index) ?? Math.max(neck.capo, landed - 1);
      });
      const approaches = approachesOf(analysis, path, chosen, neck, options.loop, wishFrom(input.approach));
      return {
        cost: rounded(cost),
        parts: Object.fromEntries(Object.entries(parts).map(([part, value]) => [part, rounded(value)])),
        figures: figuresOf(path),
        ...(first && path !== first ? { price: priceOf(figuresOf(first), figuresOf(path)) } : {}),
        targets: targets.map(({ change, beat, cell, step }, i) => ({
          change,
          beat,
          at: rounded(nth(analysis.changes, change).start + beat - 1 + shiftOf(change, beat)),
          cell: candidateOut(cell),
          step,
          ...(approaches.has(i) ? { approach: approaches.get(i) } : {})
        })),
        ...(input.approach
          ? {
              line: lineOut(
                skeletonLine(analysis, sheet.head.meter, path, approaches, tonesOfAll(analysis, neck, hands)),
                { form: sheet.form, analysis, chosen }
              )
            }
          : {})
      };
    }),
    candidates: stages.map(({ change, beat, candidates }) => ({
      change: change.index,
      beat,
      cells: candidates.map(candidateOut)
    })),
    weights: options.weights,
    ...(noPath ? { noPath } : {})
  };
}

/** Targets inside changes multiply; past this many one answer would take too long. */
const MOST_TARGETS = 4000;

export function checkMoments(changes: readonly AnalysedChange[], every: number | null): void {
  if (every === null) return;
  const count = changes.reduce((sum, { beats }) => sum + Math.ceil(beats / every), 0);
  if (count <= MOST_TARGETS) return;
  fail(413, {
    code: 'too-many-targets',
    message: `A target every ${every} beats would make ${count} of them; Corvel finds paths of up to ${MOST_TARGETS}. Ask for fewer.`,
    path: 'every'
  });
}

/** What is wished for each target: one kind for all of them, or some changes with kinds of their own. */
function wishFrom(approach: TargetsRequest['approach']): (target: Target) => ApproachWish | null {
  if (approach === undefined) return () => null;
  if (typeof approach === 'string') return () => approach;
  const own = new Map(approach.map(({ change, kind }) => [change, kind]));
  return ({ change }) => own.get(change) ?? null;
}

function candidateOut({ string, fret, note, degree, midi }: Candidate) {
  return { string, fret, note, degree, midi };
}

/** Costs without the noise of binary fractions. */
function rounded(cost: number): number {
  return Math.round(cost * 1e6) / 1e6;
}

/** Checks the player's limits against the neck and the chart. */
export function targetOptions(
  input: TargetsRequest,
  neck: Instrument,
  changes: readonly AnalysedChange[]
): TargetOptions {
  const { position, positions, window, strings, range, avoid, fixed } = input;
  for (const own of [...(position === undefined ? [] : [position]), ...(positions ?? [])]) {
    checkPosition(own, neck);
  }
  if (window && (window.from > window.to || window.from < 0 || window.to > neck.frets)) {
    fail(400, {
      code: 'bad-window',
      message: `The window from fret ${window.from} to ${window.to} is not on this neck of ${neck.frets} frets.`,
      path: 'window'
    });
  }
  if (strings) checkStrings(strings, neck);
  for (const { low, high } of [...(range ? [range] : []), ...avoid]) {
    if (low > high)
      fail(400, { code: 'bad-range', message: 'The range ends below its start.', path: 'range' });
  }
  fixed.forEach((pin, i) => {
    const onNeck = pin.string <= neck.strings.length && pin.fret <= neck.frets && pin.fret >= neck.capo;
    if (onNeck && changes[pin.change]?.chord) return;
    fail(400, {
      code: 'bad-fixed-target',
      message: !onNeck
        ? `String ${pin.string}, fret ${pin.fret} is not on this neck.`
        : changes[pin.change]
          ? `Change ${pin.change} has no chord to land on.`
          : `There is no change ${pin.change}; this chart has changes 0 to ${changes.length - 1}.`,
      path: `fixed.${i}`
    });
  });
  const degrees = input.degrees.filter(isDegree);
  return {
    neck,
    degrees,
    standIn: input.standIn,
    column: input.column && isDegree(input.column) ? input.column : null,
    alternate: input.alternate !== false,
    direction: input.direction,
    fixed,
    which: input.which,
    loop: input.loop,
    weights: input.weights,
    position: positions ? changes.map((_, i) => positions[i] ?? lastOf(positions)) : (position ?? null),
    isHandFree: false,
    window: window ?? null,
    strings: strings ?? null,
    range: range ?? null,
    avoid,
    every: input.every ?? null,
    alternatives: input.alternatives
  };
}
