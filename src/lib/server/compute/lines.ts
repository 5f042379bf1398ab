/** The route that finds lines: request in, core asked, answer out. Contract: docs/api.md. */
import { firstOf, lastOf, nth } from '../../core/base/list';
import type { z } from 'zod';
import { fail } from '../../api/errors';
import type { linesRequest } from '../../api/requests';
import type { Sheet } from '../../core/harmony/sheet';
import { approachesOf } from '../../core/line/approach-notes';
import { figureOf, firstDegree } from '../../core/line/find/figures';
import type { Motif } from '../../core/line/find/motif';
import type { LineArea } from '../../core/line/find/pool';
import { DEFAULT_FIGURE } from '../../core/line/find/levels';
import type { LevelId } from '../../core/line/find/registry';
import { endOf, ticksOf } from '../../core/line/model';
import { gridOf } from '../../core/line/phrase/grid';
import { breathAt } from '../../core/line/phrases-in';
import { measureOf, type Measure } from '../../core/line/move';
import { systemOf } from '../../core/neck/systems/registry';
import { scaleChoices } from '../../core/approaches/registry';
import type { Style } from '../../core/harmony/style';
import { soundAt } from '../../core/neck/tuning';
import { arrange, type Arrangement } from '../../core/plan/arrange';
import { linesOver, type LineWish, type PhraseDecisions } from '../../core/plan/lines';
import { DEFAULT_PLAN } from '../../core/plan/model';
import { positionAt } from '../../core/targets/candidates';
import type { TargetOptions } from '../../core/targets/options';
import { findTargets, NO_TARGETS, type TargetPath } from '../../core/targets/path';
import { checkApproaches, instrumentFrom, sheetFrom } from './inputs';
import { lineFrom, lineOut } from './line';
import { chordMeasure } from './move';
import { checkMoments, targetOptions } from './targets';

type Input = z.infer<typeof linesRequest>;

/** POST /api/v1/lines */
export function answerLines(input: Input) {
  const sheet = sheetFrom(input.chart, input.key);
  const neck = instrumentFrom(input);
  const arranged = arrange({ sheet, plan: DEFAULT_PLAN }, neck, systemOf('positions'));
  const { analysis, chosen } = arranged;
  const last = analysis.changes.length - 1;
  const { from = 0, to = last } = input;
  if (from > last || to < from) {
    fail(400, {
      code: 'no-such-change',
      message: `There is no part from change ${from} to ${to}; this chart has changes 0 to ${last}.`,
      path: 'from'
    });
  }
  const options = optionsFrom(input, arranged);
  checkMoments(analysis.changes, options.every);
  // Phrases have landings of their own.
  const { paths, noPath } =
    input.level === 'phrases' ? { paths: [NO_TARGETS], noPath: undefined } : findTargets(analysis, options);
  const [path] = paths;
  if (!path) {
    const { change, message } = noPath ?? {
      change: from,
      message: 'No chord of this chart can be landed on.'
    };
    return { lines: [], noLine: { change, message } };
  }
  const leadInto = (kind: Input['leadIn']) => (own: TargetPath) =>
    kind ? approachesOf(analysis, own, chosen, neck, options.loop, () => kind) : new Map<number, never>();
  const { lines, noLine } = linesOver(
    arranged,
    input.level === 'phrases' ? phraseAreas(input) : areasFrom(input, options),
    { paths, asked: leadInto(input.leadIn), fitting: leadInto(input.leadIn ?? 'fitting') },
    {
      ...input,
      level: input.level as LevelId,
      style: input.style as Style | undefined,
      motif: motifFrom(input, sheet, arranged),
      ...onePhraseFrom(input, sheet)
    },
    decisionsFrom(input, arranged)
  );
  const ground = { form: sheet.form, analysis, chosen };
  return {
    lines: lines.map(({ notes, cost, parts, exact, phrases }) => ({
      notes: lineOut({ meter: sheet.head.meter, notes }, ground).map((note, i) => ({
        ...note,
        position: nth(notes, i).position
      })),
      cost: rounded(cost),
      parts: Object.fromEntries(Object.entries(parts).map(([part, value]) => [part, rounded(value)])),
      seed: input.seed,
      exact,
      ...(phrases ? { phrases } : {})
    })),
    ...(noLine ? { noLine } : {})
  };
}

/** What phrases keep to: choices for some changes or by one approach for all, and targets that are fixed. */
function decisionsFrom(
  { choices = [], approach, fixed }: Input,
  { analysis, neck }: Arrangement
): PhraseDecisions {
  const asked = [
    ...new Set([...choices.map((one) => one.approach), ...(approach === undefined ? [] : [approach])])
  ];
  checkApproaches(asked, choices.length > 0 ? 'choices' : 'approach');
  const last = analysis.changes.length - 1;
  const offered = asked.length > 0 ? scaleChoices(analysis, { approaches: asked }) : [];
  const own = new Map(
    choices.map(({ change, approach: by, name }, i) => {
      const path = `choices.${i}`;
      if (change > last) {
        const message = `There is no change ${change}; this chart has changes 0 to ${last}.`;
        fail(400, { code: 'no-such-change', message, path });
      }
      const known = nth(offered, change).filter((choice) => choice.approach === by);
      const choice = name === undefined ? known[0] : known.find((one) => one.name === name);
      if (!choice) {
        const message = `${by} does not offer ${name ?? 'anything'} over ${nth(analysis.changes, change).symbol}.`;
        fail(400, { code: 'no-such-choice', message, path });
      }
      return [change, choice] as const;
    })
  );
  const byApproach = (change: number) =>
    approach === undefined ? null : (offered[change]?.find((choice) => choice.approach === approach) ?? null);
  return {
    choiceAt: (change) => own.get(change) ?? byApproach(change),
    pins: fixed
      .filter(({ beat }) => (beat ?? 1) === 1)
      .map(({ change, string, fret, when }) => ({
        change,
        string,
        fret,
        midi: soundAt(neck, string, fret),
        when: when ?? 'on'
      }))
  };
}

/** Costs without the noise of binary fractions. */
const rounded = (cost: number) => Math.round(cost * 1e6) / 1e6;

/** Whether the player has bound the line to some part of the neck. */
const isBound = ({ position, positions, window, range, strings }: Input) =>
  [position, positions, window, range, strings].some((bound) => bound !== undefined);

/**
 * The target line: thirds and sevenths under the hand where nothing else is said, the first tone of a figure where one is carried.
 * A sequence has the whole neck to climb.
 */
function optionsFrom(input: Input, { analysis, hands, neck }: Arrangement): TargetOptions {
  const figure = input.level === 'figure' ? (figureOf(input.figure ?? '') ?? DEFAULT_FIGURE) : null;
  const degrees = input.degrees ?? (figure ? [firstDegree(figure)] : ['3', '7']);
  const isThin = input.level === 'skeleton' || input.level === 'led in';
  return targetOptions(
    {
      ...input,
      approach: undefined,
      ...(isBound(input) || input.level === 'sequence' ? {} : { positions: [...hands] }),
      degrees,
      standIn: input.standIn || !input.degrees,
      alternatives: isThin ? input.alternatives : 1
    },
    neck,
    analysis.changes
  );
}

function areasFrom(input: Input, options: TargetOptions): (change: number) => LineArea {
  return (change) => {
    const position = positionAt(options, change);
    return {
      position: position ?? undefined,
      window: input.window,
      range: input.range,
      strings: input.strings
    };
  };
}

/** Phrases move with the hand unless it is put somewhere. */
function phraseAreas({ position, positions, window, range, strings }: Input): (change: number) => LineArea {
  return (change) => ({ position: positions?.[change] ?? position, window, range, strings });
}

/** What stands already, and the one phrase that is asked for beside it. */
function onePhraseFrom(
  { keep = [], only }: Input,
  { form, head }: Sheet
): { readonly held: LineWish['held']; readonly only: LineWish['only'] } {
  const held = keep
    .map(({ from, to }) => ({ from: ticksOf(from), to: ticksOf(to) }))
    .sort((a, b) => a.from - b.from);
  if (!only) return { held, only: undefined };
  const { bars } = form;
  const barAt = (bar: number, path: string) => {
    if (bar <= bars.length) return bar - 1;
    const message = `There is no bar ${bar}; this chart is played in ${bars.length} bars.`;
    return fail(400, { code: 'no-such-bar', message, path });
  };
  const first = barAt(only.bar, 'only.bar');
  const like = only.like && {
    notes: lineFrom(only.like.notes, head.meter).notes,
    first: barAt(only.like.bar, 'only.like.bar'),
    how: only.like.how,
    by: only.like.by === undefined ? undefined : ticksOf(only.like.by)
  };
  if (like && like.notes.length === 0)
    fail(400, {
      code: 'no-notes',
      message: 'The phrase to be taken up has no notes.',
      path: 'only.like.notes'
    });
  const [start, end] = [ticksOf(nth(bars, first).start), ticksOf(form.beats)];
  const before = held.findLast(({ from }) => from <= start)?.to;
  const after = held.find(({ from }) => from > start)?.from;
  const grid = gridOf(bars);
  const room = {
    from: before === undefined ? -ticksOf(firstOf(bars).beats) : before + breathAt(grid, before),
    to: after === undefined ? end : after - breathAt(grid, after)
  };
  return { held, only: { first, bars: only.bars, room, like } };
}

/** A motif with what its notes are counted in: chords of its own, or those of the chart from a change on. */
function motifFrom({ motif }: Input, sheet: Sheet, { analysis, chosen }: Arrangement): Motif | undefined {
  if (!motif) return undefined;
  const { notes } = lineFrom(motif.notes, sheet.head.meter);
  const { over, how, operations } = motif;
  if (typeof over !== 'number') {
    let end = 0;
    const spans = over.map(({ symbol, beats }) => {
      end += ticksOf(beats);
      return { end, measure: chordMeasure(symbol) };
    });
    const measureAt = (ticks: number) => (spans.find((span) => ticks < span.end) ?? lastOf(spans)).measure;
    return { notes, length: end, measureAt, how, operations };
  }
  const { changes } = analysis;
  const change = changes[over];
  if (!change) {
    const message = `There is no change ${over} for the motif to stand over; this chart has changes 0 to ${changes.length - 1}.`;
    return fail(400, { code: 'no-such-change', message, path: 'motif.over' });
  }
  const start = ticksOf(change.start);
  const own = notes
    .filter((note) => note.start >= start)
    .map((note) => ({ ...note, start: note.start - start }));
  const end = own.reduce((latest, note) => Math.max(latest, endOf(note)), 0);
  // It stands over whole changes.
  const covered =
    changes.slice(over).find(({ start: at, beats }) => ticksOf(at + beats) - start >= end) ?? change;
  return {
    notes: own,
    length: ticksOf(covered.start + covered.beats) - start,
    measureAt: (ticks): Measure => {
      const at = changes.findLast((one) => ticksOf(one.start) <= start + ticks) ?? change;
      return at.chord ? measureOf(at.chord, chosen[at.index] ?? null) : chordMeasure('C');
    },
    how,
    operations
  };
}
