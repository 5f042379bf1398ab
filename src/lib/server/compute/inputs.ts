/** Reads what a request brings: chart, instrument, chord, scale, strings. Refusals are sentences. */
import { nth } from '../../core/base/list';
import { readStyle } from '../../core/harmony/style';
import { readChord } from '../../core/theory/chord-reader';
import { byteLength, MAX_CHART_BYTES, tooLargeMessage } from '../../api/limits';
import { CHANGES_IN_AN_ANSWER } from '../../api/requests';
import { APPROACHES } from '../../core/approaches/registry';
import { MAX_CHANGES } from '../../core/chart/unroll';
import { readKey } from '../../core/harmony/key';
import { readSheet, type Sheet } from '../../core/harmony/sheet';
import { lastPosition } from '../../core/neck/position';
import type { NamedCell } from '../../core/neck/shape';
import {
  MAX_FRETS,
  MAX_SPAN,
  MIN_FRETS,
  MIN_SPAN,
  readInstrument,
  type CapoChords,
  type Instrument
} from '../../core/neck/tuning';
import { type Chord } from '../../core/theory/chord';
import { readScale, type Scale } from '../../core/theory/scale';
import { fail } from '../../api/errors';

/** Reads a chart from a request, within the bounds of the contract. `style`: one the player chose, in their words. */
export function sheetFrom(chart: string, key?: string, style?: string): Sheet {
  if (byteLength(chart) > MAX_CHART_BYTES) {
    fail(413, { code: 'chart-too-large', message: tooLargeMessage(chart), path: 'chart' });
  }
  if (key !== undefined && !readKey(key)) {
    fail(400, { code: 'bad-key', message: `“${key}” is not a key; write it like Eb or F#m.`, path: 'key' });
  }
  const sheet = readSheet(chart, key, (style !== undefined && readStyle(style)) || undefined);
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

/** The changes that one answer tells of. */
export interface Part {
  readonly from: number;
  /** The first one that is left out. */
  readonly end: number;
  /** Where to go on asking; undefined where all that was asked for is told. */
  readonly next?: number;
}

/** The part of a chart that is asked for, no more of it than one answer tells. */
export function partFrom(count: number, wish: { from?: number | undefined; to?: number | undefined }): Part {
  const { from = 0, to = count - 1 } = wish;
  const refuse = (path: string, message: string) => fail(400, { code: 'no-such-change', message, path });
  if (from >= count) {
    refuse('from', `There is no change ${from}; this chart has changes 0 to ${count - 1}.`);
  }
  if (to < from) refuse('to', `The part ends with change ${to}, before it starts with change ${from}.`);
  const last = Math.min(to, count - 1);
  const end = Math.min(last + 1, from + CHANGES_IN_AN_ANSWER);
  return { from, end, ...(end <= last ? { next: end } : {}) };
}

export function instrumentFrom(parts: {
  tuning?: string | string[] | undefined;
  frets?: number | undefined;
  capo?: number | undefined;
  span?: number | undefined;
  openStrings?: boolean | undefined;
  capoChords?: CapoChords | undefined;
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
  if (!readInstrument({ span: parts.span })) {
    fail(400, {
      code: 'bad-span',
      message: `A hand spans ${MIN_SPAN} to ${MAX_SPAN} frets.`,
      path: 'span'
    });
  }
  return fail(400, {
    code: 'bad-neck',
    message: `A neck has ${MIN_FRETS} to ${MAX_FRETS} frets, and a capo leaves at least five of them.`,
    path: 'frets'
  });
}

export function checkPosition(position: number, neck: Instrument): void {
  if (position >= neck.capo && position <= lastPosition(neck)) return;
  fail(400, {
    code: 'off-the-neck',
    message: `Position ${position} is off this neck; positions go from ${neck.capo} to ${lastPosition(neck)}.`,
    path: 'position'
  });
}

export function chordFrom(text: string): Chord {
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

export function scaleFrom(text: string): Scale {
  return (
    readScale(text) ??
    fail(400, {
      code: 'bad-scale',
      message: `“${text}” is not a scale Corvel knows; write the root first, as in F dorian or Bb lydian dominant.`,
      path: 'scale'
    })
  );
}

/** Checks that strings are on the instrument. */
export function checkStrings(strings: readonly number[], neck: Instrument): void {
  const missing = strings.find((string) => string < 1 || string > neck.strings.length);
  if (missing === undefined) return;
  fail(400, {
    code: 'no-such-string',
    message: `There is no string ${missing}; this instrument has strings 1 (highest) to ${neck.strings.length}.`,
    path: 'strings'
  });
}

/** A string set for a grip of so many voices: from the lowest string up. */
export function checkStringSet(strings: readonly number[], voices: number, neck: Instrument): void {
  checkStrings(strings, neck);
  const isOrdered = strings.every((string, i) => i === 0 || string < nth(strings, i - 1));
  if (isOrdered && strings.length === voices) return;
  fail(400, {
    code: 'bad-string-set',
    message: `This grip takes ${voices} different strings, the lowest first, such as [${[5, 4, 3, 2].slice(0, voices).join(', ')}].`,
    path: 'strings'
  });
}

export function checkApproaches(ids: readonly string[], path: string): void {
  const unknown = ids.find((id) => !APPROACHES.some((approach) => approach.id === id));
  if (unknown === undefined) return;
  fail(400, {
    code: 'unknown-approach',
    message: `There is no approach “${unknown}”; there are ${APPROACHES.map(({ id }) => id).join(', ')}.`,
    path
  });
}

/** A cell as it goes out. */
export function cellOut({ string, fret, note, degree, finger, midi, stretch }: NamedCell) {
  return { string, fret, note, degree, finger, midi, ...(stretch ? { stretch } : {}) };
}
