/** The routes about harmony: request in, core asked, answer out. Contract: docs/api.md. */
import { chordOf } from '../../core/chart/unroll';
import { nth } from '../../core/base/list';
import type { z } from 'zod';
import type { analysisRequest, guideTonesRequest, scaleChoicesRequest } from '../../api/requests';
import { leaveAlone } from '../../core/approaches/advice';
import { findChains } from '../../core/approaches/chains';
import { contextOf } from '../../core/approaches/context';
import { judgedKeyScales } from '../../core/approaches/key-centre';
import { scaleChoices, type OfferedChoice } from '../../core/approaches/registry';
import { guideColumns, guideThreads } from '../../core/harmony/guide-tones';
import type { Analysis } from '../../core/harmony/analysis';
import { sameKey, type Key } from '../../core/harmony/key';
import { cadenceName, cadenceTitle } from '../../core/harmony/cadence-model';
import { romanText } from '../../core/harmony/numeral';
import { spell } from '../../core/theory/note';
import { fail } from '../../api/errors';
import { checkApproaches, partFrom, sheetFrom } from './inputs';

/** POST /api/v1/analysis */
export function answerAnalysis({ chart, key, style }: z.infer<typeof analysisRequest>) {
  const { analysis, problems } = sheetFrom(chart, key, style);
  return {
    key: analysis.key,
    style: analysis.style,
    regions: regionsOf(analysis),
    changes: analysis.changes.map((change) => ({
      index: change.index,
      section: change.section,
      bar: change.bar,
      beat: change.beat,
      beats: change.beats,
      symbol: change.symbol,
      root: change.chord?.root ?? null,
      ...(change.chord?.bass ? { bass: change.chord.bass } : {}),
      tones: change.chord
        ? change.chord.tones.map((degree) => ({ degree, note: spell(chordOf(change).root, degree) }))
        : [],
      roman: change.numeral && romanText(change.numeral),
      function: change.function,
      inKey: change.inKey,
      key: { tonic: change.key.tonic, mode: change.key.mode },
      ...(change.alsoIn.length
        ? {
            alsoIn: change.alsoIn.map(({ tonic, mode, numeral }) => ({
              tonic,
              mode,
              roman: romanText(numeral)
            }))
          }
        : {}),
      ...(change.problem ? { problem: change.problem } : {})
    })),
    cadences: analysis.cadences.map((cadence) => ({
      type: cadenceName(cadence),
      ...(cadenceTitle(cadence) === cadenceName(cadence) ? {} : { name: cadenceTitle(cadence) }),
      from: cadence.from,
      to: cadence.to,
      key: cadence.goal
    })),
    problems
  };
}

/** The keys of the moment in runs of changes, both ends in. */
function regionsOf({ changes }: Analysis): { from: number; to: number; key: Key }[] {
  const regions: { from: number; to: number; key: Key }[] = [];
  for (const { index, key } of changes) {
    const last = regions.at(-1);
    if (last && sameKey(last.key, key)) last.to = index;
    else regions.push({ from: index, to: index, key: { tonic: key.tonic, mode: key.mode } });
  }
  return regions;
}

/** POST /api/v1/scale-choices */
export function answerScaleChoices(input: z.infer<typeof scaleChoicesRequest>) {
  const { chart, key, change, approaches, style } = input;
  const { analysis } = sheetFrom(chart, key, style);
  checkApproaches(approaches ?? [], 'approaches');
  if (change !== undefined && change >= analysis.changes.length) {
    fail(400, {
      code: 'no-such-change',
      message: `There is no change ${change}; this chart has changes 0 to ${analysis.changes.length - 1}.`,
      path: 'change'
    });
  }
  const { from, end, next } =
    change === undefined
      ? partFrom(analysis.changes.length, input)
      : { from: change, end: change + 1, next: undefined };
  const all = scaleChoices(analysis, { approaches, end });
  const chains = findChains(analysis).filter(
    ({ approach, changes }) =>
      (!approaches || approaches.includes(approach)) && changes.some((one) => one >= from && one < end)
  );
  return {
    changes: analysis.changes.slice(from, end).map(({ index, problem, chord }) => {
      const context = contextOf(analysis, index);
      const stays = leaveAlone(analysis, index);
      return {
        index,
        choices: nth(all, index).map(choiceOut),
        ...(stays === null ? {} : { leaveAlone: stays }),
        ...(context
          ? {
              keyCentre: judgedKeyScales(context).map(({ name, lacks, contradicts }) => ({
                name,
                lacks,
                contradicts
              }))
            }
          : {}),
        ...(problem ? { problem } : {}),
        ...(chord ? {} : { message: problem ? problem.message : 'No chord sounds here.' })
      };
    }),
    chains: chains.map(({ collections, ...chain }) => ({
      ...chain,
      names: collections.map(({ name }) => name)
    })),
    ...(next === undefined ? {} : { next })
  };
}

function choiceOut(choice: OfferedChoice) {
  const { facts: _, blueNotes: __, contradicts: ___, blue, ...rest } = choice;
  return { ...rest, ...(blue.length ? { blue } : {}) };
}

/** POST /api/v1/guide-tones */
export function answerGuideTones({ chart, key }: z.infer<typeof guideTonesRequest>) {
  const { analysis } = sheetFrom(chart, key);
  return { columns: guideColumns(analysis.changes), threads: guideThreads(analysis.changes) };
}
