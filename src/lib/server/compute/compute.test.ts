import { describe, expect, it } from 'vitest';
import {
  analysisRequest,
  positionMapRequest,
  scaleChoicesRequest,
  shapeRequest,
  targetsRequest
} from '../../api/requests';
import { parse } from '../web/body';
import { answerAnalysis, answerScaleChoices } from './harmony';
import { answerPositionMap, answerShape } from './neck';
import { answerTargets } from './targets';
import { refusal } from './testing';

const analysis = (body: unknown) => answerAnalysis(parse(analysisRequest, body));
const shape = (body: unknown) => answerShape(parse(shapeRequest, body));
const targets = (body: unknown) => answerTargets(parse(targetsRequest, body));

describe('analysis', () => {
  it('answers the sample of the contract', () => {
    const answer = analysis({
      chart: '{key: Gm}\n{start_of_grid}\n| Am7b5 | D7b9 | Gm6 | % |\n{end_of_grid}'
    });
    expect(answer.key).toMatchObject({ tonic: 'G', mode: 'minor' });
    expect(answer.changes[0]).toMatchObject({
      index: 0,
      section: '',
      bar: 1,
      beat: 1,
      beats: 4,
      symbol: 'Am7b5',
      root: 'A',
      tones: [
        { degree: '1', note: 'A' },
        { degree: 'b3', note: 'C' },
        { degree: 'b5', note: 'Eb' },
        { degree: 'b7', note: 'G' }
      ],
      roman: 'iiø7',
      function: 'pre-dominant',
      inKey: true
    });
    expect(answer.cadences[0]).toEqual({
      type: 'ii-V-i',
      from: 0,
      to: 2,
      key: { tonic: 'G', mode: 'minor' }
    });
  });

  it('carries an unreadable symbol as a problem of its change', () => {
    const { changes } = analysis({ chart: '| Gm7 | Czz |' });
    expect(changes[1]).toMatchObject({ symbol: 'Czz', root: null, tones: [], problem: { at: 1 } });
  });

  it.each([
    [{ chart: '' }, 400, 'empty-chart'],
    [{ chart: `| ${'C | '.repeat(20_000)}` }, 413, 'chart-too-large'],
    [{ chart: '| C '.repeat(2001) + '|' }, 413, 'too-many-changes'],
    [{ chart: '| C |', key: 'H' }, 400, 'bad-key'],
    [{ chart: 7 }, 400, 'bad-request'],
    [{}, 400, 'bad-request']
  ])('refuses %#', (body, status, code) => {
    expect(refusal(() => analysis(body))).toMatchObject({ status, error: { code } });
  });
});

describe('shape', () => {
  it('lays out a chord, a scale, and a scale counted against a chord', () => {
    expect(shape({ chord: 'Gm', position: 7 }).name).toBe('G minor triad');
    expect(shape({ scale: 'F dorian', position: 8 }).cells[0]).toMatchObject({
      degree: expect.any(String),
      midi: expect.any(Number)
    });
    const over = shape({ chord: 'Bb7', scale: 'F dorian', position: 8 });
    expect(new Set(over.cells.map((c) => c.degree))).toEqual(new Set(['1', '9', '3', '11', '5', '13', 'b7']));
  });

  it.each([
    [{ chord: 'Gm', position: 40 }, 'off-the-neck'],
    [{ chord: 'Gm', position: -1 }, 'off-the-neck'],
    [{ position: 5 }, 'nothing-to-lay-out'],
    [{ chord: 'Gxx', position: 5 }, 'bad-chord'],
    [{ scale: 'F wobbly', position: 5 }, 'bad-scale'],
    [{ chord: 'G', position: 5, tuning: 'rubber' }, 'bad-tuning'],
    [{ chord: 'G', position: 5, frets: 50 }, 'bad-neck']
  ])('refuses %j', (body, code) => {
    const { status, error } = refusal(() => shape(body));
    expect([status, error.code]).toEqual([400, code]);
    expect(error.message).toMatch(/[.?]$/);
  });
});

describe('targets', () => {
  const chart = '| Fm7 | Bb7 | Ebmaj7 | C7b9 |';

  it('gives paths with their parts, candidates and weights', () => {
    const answer = targets({ chart, position: 6, degrees: ['3', '7'], loop: true, alternatives: 3 });
    expect(answer.paths).toHaveLength(3);
    expect(answer.paths[0]!.targets.map((t) => t.change)).toEqual([0, 1, 2, 3]);
    expect(answer.candidates).toHaveLength(4);
    expect(answer.weights.degree['3']).toBe(0);
  });

  it('takes some of the weights and keeps the rest', () => {
    expect(targets({ chart, weights: { pitch: 3, degree: { '5': 0 } } }).weights).toMatchObject({
      pitch: 3,
      hand: 2,
      degree: { '1': 1, '5': 0 }
    });
  });

  it('honours a fixed target', () => {
    const { paths } = targets({ chart, fixed: [{ change: 2, string: 1, fret: 10 }] });
    expect(paths[0]!.targets[2]!.cell).toMatchObject({ string: 1, fret: 10, note: 'D', degree: '7' });
  });

  it.each([
    [{ degrees: ['17'] }, 'bad-request', /no degree of a chord/],
    [{ degrees: ['2'] }, 'bad-request', /no degree of a chord/],
    [{ position: 30 }, 'off-the-neck', /positions go from/],
    [{ window: { from: 9, to: 3 } }, 'bad-window', /window/],
    [{ strings: [8] }, 'no-such-string', /no string 8/],
    [{ range: { low: 70, high: 60 } }, 'bad-range', /range/],
    [{ fixed: [{ change: 9, string: 1, fret: 1 }] }, 'bad-fixed-target', /no change 9/],
    [{ fixed: [{ change: 0, string: 9, fret: 1 }] }, 'bad-fixed-target', /not on this neck/]
  ])('refuses %j', (part, code, words) => {
    const { error } = refusal(() => targets({ chart, ...part }));
    expect(error.code).toBe(code);
    expect(error.message).toMatch(words);
  });

  it('tells why there is no path', () => {
    expect(targets({ chart: '| C | Dsus4 |', degrees: ['3'] }).noPath).toMatchObject({ change: 1 });
  });
});

describe('targets, all of it', () => {
  const chart = '{key: F}\n| Gm7 | C7 | Fmaj7 | Dm7 |';

  it('takes a travelling hand, registers, arches and several targets in a change', () => {
    const { paths, candidates } = targets({
      chart,
      positions: [3, 5, 8],
      avoid: [{ low: 60, high: 61 }],
      direction: 'arch',
      every: 2
    });
    expect(paths[0]!.targets.map(({ change, beat }) => `${change}:${beat}`)).toEqual([
      '0:1',
      '0:3',
      '1:1',
      '1:3',
      '2:1',
      '2:3',
      '3:1',
      '3:3'
    ]);
    expect(candidates[0]!.cells.every(({ fret }) => fret <= 7)).toBe(true);
    // The last position goes on.
    expect(candidates[7]!.cells.every(({ fret }) => fret >= 7 && fret <= 12)).toBe(true);
    expect(candidates.every(({ cells }) => cells.every(({ midi }) => midi < 60 || midi > 61))).toBe(true);
  });

  it('leads into targets and plays them as a line', () => {
    const { paths } = targets({ chart, position: 5, degrees: ['3', '7'], approach: 'below' });
    const [path] = paths;
    const led = path!.targets.filter(({ approach }) => approach);
    expect(led.length).toBeGreaterThan(0);
    for (const { cell, approach } of led) expect(approach![0]!.midi).toBe(cell.midi - 1);
    expect(path!.line!.filter(({ purpose }) => purpose === 'target')).toHaveLength(4);
    const some = targets({ chart, position: 5, approach: [{ change: 2, kind: 'enclosure' }] });
    expect(some.paths[0]!.targets.filter(({ approach }) => approach).map(({ change }) => change)).toEqual([
      2
    ]);
    expect(targets({ chart, position: 5 }).paths[0]!.line).toBeUndefined();
  });

  it('says what alternatives cost, and counts what a path does', () => {
    const { paths } = targets({ chart, position: 5, alternatives: 3 });
    expect(paths[0]!.price).toBeUndefined();
    expect(paths[1]!.price).toMatch(/[a-z]/);
    expect(paths[0]!.figures.targets).toBe(4);
  });

  it('lands on named changes only, and fixes by the beat', () => {
    const { paths } = targets({
      chart,
      which: { only: [1, 3] },
      every: 2,
      fixed: [{ change: 1, beat: 3, string: 3, fret: 5 }]
    });
    expect(paths[0]!.targets.map(({ change }) => change)).toEqual([1, 1, 3, 3]);
    expect(paths[0]!.targets[1]!.cell).toMatchObject({ string: 3, fret: 5 });
  });

  it.each([
    [{ chart, positions: [3, 99] }, 400, 'off-the-neck'],
    [{ chart, avoid: [{ low: 70, high: 60 }] }, 400, 'bad-range'],
    [{ chart, approach: 'magic' }, 400, 'bad-request'],
    [{ chart, direction: 'zigzag' }, 400, 'bad-request'],
    [{ chart: '| C |'.repeat(1200), every: 0.5 }, 413, 'too-many-targets']
  ])('%#: refuses what cannot be', (body, status, code) => {
    const refused = refusal(() => targets(body));
    expect(refused.status).toBe(status);
    expect(refused.error.code).toBe(code);
  });
});

describe('long charts', () => {
  const chart = `{key: Bb}\n${'| Cm7 | F7 | Bbmaj7 | Gm7 '.repeat(150)}|`;
  const choices = (body: unknown) => answerScaleChoices(parse(scaleChoicesRequest, body));
  const map = (body: unknown) => answerPositionMap(parse(positionMapRequest, body));

  it('are told in parts that together say what the whole says', () => {
    const first = choices({ chart, approaches: ['modes'] });
    expect(first.changes).toHaveLength(512);
    expect(first.next).toBe(512);
    const rest = choices({ chart, approaches: ['modes'], from: first.next });
    expect(rest.next).toBeUndefined();
    const indexes = [...first.changes, ...rest.changes].map(({ index }) => index);
    expect(indexes).toEqual(Array.from({ length: 600 }, (_, i) => i));
    const one = choices({ chart, approaches: ['modes'], change: 513 });
    expect(one.changes).toEqual([rest.changes[1]]);
  });

  it('have their map in parts too', () => {
    const first = map({ chart });
    expect(first.next).toBe(512);
    const some = map({ chart, from: 510, to: 513 });
    expect(some.next).toBeUndefined();
    expect(some.rows[0]!.areas.map(({ change }) => change)).toEqual([510, 511, 512, 513]);
    expect(some.rows[0]!.areas[0]).toEqual(first.rows[0]!.areas.find(({ change }) => change === 510));
  });

  it.each([{ from: 600 }, { from: 5, to: 4 }])('refuses the part %j', (part) => {
    expect(refusal(() => choices({ chart, ...part }))).toMatchObject({ status: 400 });
  });
});

describe('bad requests', () => {
  it.each([
    [targetsRequest, { chart: '| C |', column: { toString: 1 } }],
    [targetsRequest, { chart: '| C |', degrees: [Object.create(null)] }],
    [shapeRequest, { position: 5, organise: { toString: 1 } }]
  ])('are refused in a sentence whatever stands in them', (schema, body) => {
    expect(refusal(() => parse(schema, body))).toMatchObject({ status: 400, error: { code: 'bad-request' } });
  });
});
