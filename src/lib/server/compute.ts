/** The stateless computations behind the routes: request in, core asked, answer out. Contract: docs/api.md. */
import type { z } from 'zod';
import type {
  analysisRequest,
  guideTonesRequest,
  scaleChoicesRequest,
  shapeRequest,
  TargetsRequest
} from '../api/requests';
import { findChains } from '../core/approaches/chains';
import { contextOf } from '../core/approaches/context';
import { judgedKeyScales } from '../core/approaches/key-centre';
import { APPROACHES, scaleChoices, type OfferedChoice } from '../core/approaches/registry';
import { guideColumns, guideThreads } from '../core/harmony/guide-tones';
import { byteLength, MAX_CHART_BYTES, tooLargeMessage } from '../api/limits';
import type { AnalysedChange } from '../core/harmony/analysis';
import { readSheet, type Sheet } from '../core/harmony/sheet';
import { readKey } from '../core/harmony/key';
import { MAX_CHANGES } from '../core/chart/unroll';
import { readChord, type Chord } from '../core/theory/chord';
import { isDegree } from '../core/theory/degree';
import { spell } from '../core/theory/note';
import { readScale } from '../core/theory/scale';
import { shapeOf, type NamedCell } from '../core/neck/shape';
import { readInstrument, MAX_FRETS, MIN_FRETS, type Instrument } from '../core/neck/tuning';
import { lastPosition } from '../core/neck/position';
import { findTargets } from '../core/targets/path';
import type { Candidate } from '../core/targets/candidates';
import type { TargetOptions } from '../core/targets/options';
import { fail } from './answer';

/** Reads a chart from a request, within the bounds of the contract. */
function sheetFrom(chart: string, key?: string): Sheet {
  if (byteLength(chart) > MAX_CHART_BYTES) {
    fail(413, { code: 'chart-too-large', message: tooLargeMessage(chart), path: 'chart' });
  }
  if (key !== undefined && !readKey(key)) {
    fail(400, { code: 'bad-key', message: `“${key}” is not a key; write it like Eb or F#m.`, path: 'key' });
  }
  const sheet = readSheet(chart, key);
  if (sheet.form.tooLong) {
    fail(413, {
      code: 'too-many-changes',
      message: `This chart has more than ${MAX_CHANGES} changes; split it into two charts.`,
      path: 'chart'
    });
  }
  const empty = sheet.problems.find(({ code }) => code === 'empty-chart');
  if (empty) fail(400, { code: empty.code, message: empty.message, path: 'chart', line: 1, column: 1 });
  return sheet;
}

function instrumentFrom(parts: {
  tuning?: string | string[] | undefined;
  frets?: number | undefined;
  capo?: number | undefined;
}): Instrument {
  const tuning = Array.isArray(parts.tuning) ? parts.tuning.join(' ') : parts.tuning;
  const neck = readInstrument({ ...parts, tuning });
  if (neck) return neck;
  if (!readInstrument({ tuning })) {
    fail(400, {
      code: 'bad-tuning',
      message: `“${tuning}” is not a tuning; give a name such as standard or drop D, or the strings from the lowest: E2 A2 D3 G3 B3 E4.`,
      path: 'tuning'
    });
  }
  return fail(400, {
    code: 'bad-neck',
    message: `A neck has ${MIN_FRETS} to ${MAX_FRETS} frets, and a capo leaves at least five of them.`,
    path: 'frets'
  });
}

function checkPosition(position: number, neck: Instrument): void {
  if (position >= neck.capo && position <= lastPosition(neck)) return;
  fail(400, {
    code: 'off-the-neck',
    message: `Position ${position} is off this neck; positions go from ${neck.capo} to ${lastPosition(neck)}.`,
    path: 'position'
  });
}

function chordFrom(text: string): Chord {
  const reading = readChord(text);
  if (reading.kind === 'chord') return reading.chord;
  const message = reading.kind === 'problem' ? reading.problem.message : 'N.C. means that no chord sounds.';
  return fail(400, {
    code: 'bad-chord',
    message,
    path: 'chord',
    ...(reading.kind === 'problem' ? { line: 1, column: reading.problem.at + 1 } : {})
  });
}

/** POST /api/v1/analysis */
export function answerAnalysis({ chart, key }: z.infer<typeof analysisRequest>) {
  const { analysis, problems } = sheetFrom(chart, key);
  return {
    key: analysis.key,
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
        ? change.chord.tones.map((degree) => ({ degree, note: spell(change.chord!.root, degree) }))
        : [],
      roman: change.roman,
      function: change.function,
      inKey: change.inKey,
      key: { tonic: change.key.tonic, mode: change.key.mode },
      ...(change.problem ? { problem: change.problem } : {})
    })),
    cadences: analysis.cadences,
    problems
  };
}

/** POST /api/v1/scale-choices */
export function answerScaleChoices({ chart, key, change, approaches }: z.infer<typeof scaleChoicesRequest>) {
  const { analysis } = sheetFrom(chart, key);
  const unknown = approaches?.find((id) => !APPROACHES.some((approach) => approach.id === id));
  if (unknown !== undefined) {
    fail(400, {
      code: 'unknown-approach',
      message: `There is no approach “${unknown}”; there are ${APPROACHES.map(({ id }) => id).join(', ')}.`,
      path: 'approaches'
    });
  }
  if (change !== undefined && change >= analysis.changes.length) {
    fail(400, {
      code: 'no-such-change',
      message: `There is no change ${change}; this chart has changes 0 to ${analysis.changes.length - 1}.`,
      path: 'change'
    });
  }
  const all = scaleChoices(analysis, approaches ?? null);
  const chains = findChains(analysis).filter(
    ({ approach, changes }) =>
      (!approaches || approaches.includes(approach)) && (change === undefined || changes.includes(change))
  );
  return {
    changes: analysis.changes
      .filter(({ index }) => change === undefined || index === change)
      .map(({ index, problem, chord }) => {
        const context = contextOf(analysis, index);
        return {
          index,
          choices: all[index]!.map(choiceOut),
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
    chains
  };
}

function choiceOut(choice: OfferedChoice) {
  const { blueNotes: _, contradicts: __, blue, ...rest } = choice;
  return { ...rest, ...(blue.length ? { blue } : {}) };
}

/** POST /api/v1/guide-tones */
export function answerGuideTones({ chart, key }: z.infer<typeof guideTonesRequest>) {
  const { analysis } = sheetFrom(chart, key);
  return { columns: guideColumns(analysis.changes), threads: guideThreads(analysis.changes) };
}

/** POST /api/v1/shape */
export function answerShape(input: z.infer<typeof shapeRequest>) {
  const neck = instrumentFrom(input);
  checkPosition(input.position, neck);
  if (!input.chord && !input.scale) {
    fail(400, { code: 'nothing-to-lay-out', message: 'Name a chord, a scale or both.', path: 'chord' });
  }
  const chord = input.chord ? chordFrom(input.chord) : null;
  const scale = input.scale ? readScale(input.scale) : null;
  if (input.scale && !scale) {
    fail(400, {
      code: 'bad-scale',
      message: `“${input.scale}” is not a scale Corvel knows; write the root first, as in F dorian or Bb lydian dominant.`,
      path: 'scale'
    });
  }
  const shape = shapeOf(neck, chord, scale, input.position);
  return { ...shape, cells: shape.cells.map(cellOut), stretches: shape.stretches.map(cellOut) };
}

function cellOut({ string, fret, note, degree, finger, midi, stretch }: NamedCell) {
  return { string, fret, note, degree, finger, midi, ...(stretch ? { stretch } : {}) };
}

/** POST /api/v1/targets */
export function answerTargets(input: TargetsRequest) {
  const { analysis } = sheetFrom(input.chart, input.key);
  const neck = instrumentFrom(input);
  const options = targetOptions(input, neck, analysis.changes);
  const { paths, stages, noPath } = findTargets(analysis, options);
  return {
    paths: paths.map(({ cost, parts, targets }) => ({
      cost: rounded(cost),
      parts: Object.fromEntries(Object.entries(parts).map(([part, value]) => [part, rounded(value)])),
      targets: targets.map(({ change, cell, step }) => ({ change, cell: candidateOut(cell), step }))
    })),
    candidates: stages.map(({ change, candidates }) => ({
      change: change.index,
      cells: candidates.map(candidateOut)
    })),
    weights: options.weights,
    ...(noPath ? { noPath } : {})
  };
}

function candidateOut({ string, fret, note, degree, midi }: Candidate) {
  return { string, fret, note, degree, midi };
}

/** Costs without the noise of binary fractions. */
function rounded(cost: number): number {
  return Math.round(cost * 1e6) / 1e6;
}

/** Checks the player's limits against the neck and the chart. */
function targetOptions(
  input: TargetsRequest,
  neck: Instrument,
  changes: readonly AnalysedChange[]
): TargetOptions {
  const { position, window, strings, range, fixed } = input;
  if (position !== undefined) checkPosition(position, neck);
  if (window && (window.from > window.to || window.from < 0 || window.to > neck.frets)) {
    fail(400, {
      code: 'bad-window',
      message: `The window from fret ${window.from} to ${window.to} is not on this neck of ${neck.frets} frets.`,
      path: 'window'
    });
  }
  const missing = strings?.find((string) => string < 1 || string > neck.strings.length);
  if (missing !== undefined) {
    fail(400, {
      code: 'no-such-string',
      message: `There is no string ${missing}; this instrument has strings 1 (highest) to ${neck.strings.length}.`,
      path: 'strings'
    });
  }
  if (range && range.low > range.high) {
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
    position: position ?? null,
    window: window ?? null,
    strings: strings ?? null,
    range: range ?? null,
    alternatives: input.alternatives
  };
}
