import { describe, expect, it } from 'vitest';
import {
  positionMapRequest,
  shapeRequest,
  triadPathRequest,
  unitsRequest,
  voicingsRequest
} from '../../api/requests';
import { parse } from '../web/body';
import { answerPositionMap, answerShape, answerTriadPath, answerUnits, answerVoicings } from './neck';
import { refusal } from './testing';

const map = (body: unknown) => answerPositionMap(parse(positionMapRequest, body));
const shape = (body: unknown) => answerShape(parse(shapeRequest, body));
const units = (body: unknown) => answerUnits(parse(unitsRequest, body));
const voicings = (body: unknown) => answerVoicings(parse(voicingsRequest, body));
const path = (body: unknown) => answerTriadPath(parse(triadPathRequest, body));

describe('position-map', () => {
  const chart = '{key: F#m}\n| F#m7 | Bm7 | C#7alt | F#m7 |';

  it('has a row for each box of the key, and each change in its own nearest box', () => {
    const { rows } = map({ chart });
    // F sharp minor pentatonic on string 6: F#2, A5, B7, C#9, E12 (and E at the nut).
    expect(rows.map(({ position }) => position).slice(0, 7)).toEqual([0, 2, 5, 7, 9, 12, 14]);
    const row = rows.find(({ position }) => position === 5)!;
    expect(row.areas.map(({ change, anchor, box }) => [change, anchor, box?.minor])).toEqual([
      [0, 5, 2],
      [1, 5, 5],
      [2, 5, 3],
      [3, 5, 2]
    ]);
    expect(row.areas[0]).toMatchObject({
      choice: { approach: 'chord-pentatonic', name: 'F# minor pentatonic' },
      box: { minor: 2, major: 1, form: 'D' }
    });
    expect(map({ chart: '{key: F#m}\n| D#m7b5 |' }).rows[0]!.areas[0]!.remark).toMatch(/no boxes/);
  });

  it('takes another approach, neck system, tuning and length of neck', () => {
    const { rows } = map({
      chart,
      approach: 'modes',
      organise: 'forms',
      tuning: 'half-step down',
      frets: 19
    });
    expect(rows.map(({ position }) => position)).toContain(3);
    expect(rows.every(({ areas }) => areas.every(({ cells }) => cells.every(({ fret }) => fret <= 19)))).toBe(
      true
    );
    expect(rows[1]!.areas[0]!.title).toMatch(/form$/);
  });

  it('leaves out changes without a chord', () => {
    const { rows } = map({ chart: '| Am7 | N.C. | Zz | Dm7 |' });
    expect(rows[0]!.areas.map(({ change }) => change)).toEqual([0, 3]);
  });
});

describe('shape', () => {
  it('lays a collection out by a neck system', () => {
    const box = shape({ chord: 'Gm7', scale: 'G minor pentatonic', position: 5, organise: 'minor-boxes' });
    expect(box).toMatchObject({
      title: 'box 2',
      anchor: 6,
      box: { minor: 2, major: 1, form: 'D' },
      lacksInReach: []
    });
    const fill = shape({ scale: 'D altered', position: 5, organise: 'major-boxes' });
    expect(fill).toMatchObject({ title: 'position 5', anchor: 5 });
    expect('remark' in fill && fill.remark).toMatch(/no boxes/);
    const unit = shape({ chord: 'Bb7', scale: 'Bb mixolydian', position: 6, organise: 'roots' });
    expect(unit).toMatchObject({ title: 'root on 6', anchor: 6 });
  });

  it('knows spans and open strings', () => {
    const narrow = shape({ scale: 'F major', position: 5, span: 3 });
    expect(narrow.cells.filter(({ stretch }) => !stretch).every(({ fret }) => fret >= 5 && fret <= 7)).toBe(
      true
    );
    const stopped = shape({ scale: 'E minor pentatonic', position: 1, openStrings: false });
    expect(stopped.cells.every(({ fret }) => fret > 0)).toBe(true);
  });
});

describe('units', () => {
  it('hold grip, arpeggio and scale for each root string', () => {
    const answer = units({ chord: 'Dbmaj7' });
    expect(answer.units.map(({ rootString, position }) => [rootString, position])).toEqual([
      [6, 9],
      [5, 4],
      [4, 11]
    ]);
    expect(answer.units[1]!.grip.map(({ degree }) => degree)).toEqual(['1', '5', '7', '3']);
    expect(answer.units[0]!.grip.map(({ degree }) => degree)).toEqual(['1', '7', '3', '5']);
    expect(answer.units[2]!.scale.map(({ note }) => note)).toEqual([
      'Db',
      'Eb',
      'F',
      'Gb',
      'Ab',
      'Bb',
      'C',
      'Db'
    ]);
  });

  it('takes the scale that is named', () => {
    const [unit] = units({ chord: 'C7', scale: 'C lydian dominant' }).units;
    expect(unit!.scale.map(({ degree }) => degree)).toContain('#11');
  });
});

describe('voicings', () => {
  it('go from the first fret up, cells from the bass', () => {
    const answer = voicings({ chord: 'Ebm7', type: 'drop2', strings: [5, 4, 3, 2] });
    expect(
      answer.voicings
        .map(({ inversion }) => inversion)
        .slice(0, 4)
        .sort()
    ).toEqual([0, 1, 2, 3]);
    const root = answer.voicings.find(({ inversion }) => inversion === 0)!;
    expect(root.cells.map(({ string, fret, note }) => `${string}:${fret} ${note}`)).toEqual([
      '5:6 Eb',
      '4:8 Bb',
      '3:6 Db',
      '2:7 Gb'
    ]);
    expect(root.cells.map(({ finger }) => finger)).toEqual([1, 3, 1, 2]);
  });
});

describe('triad-path', () => {
  const loop = '| Bb | Gm | Eb | F |';

  it('tells how each voice moves', () => {
    const answer = path({ chart: loop, strings: [4, 3, 2], start: { inversion: 0, fret: 8 } });
    expect(answer.grips.map(({ cells }) => cells.map(({ note }) => note).join(' '))).toEqual([
      'Bb D F',
      'Bb D G',
      'Bb Eb G',
      // Six semitones either way: the lower frets.
      'A C F'
    ]);
    expect(answer.grips[1]!.moves).toEqual([
      { from: 'Bb', to: 'Bb', semitones: 0 },
      { from: 'D', to: 'D', semitones: 0 },
      { from: 'F', to: 'G', semitones: 2 }
    ]);
    expect(answer.total).toBe(2 + 1 + 6);
    expect(answer.ranOut).toBeUndefined();
  });

  it('finds a first grip by itself, and the end of the neck', () => {
    expect(path({ chart: loop, strings: [3, 2, 1] }).grips).toHaveLength(4);
    const down = path({ chart: loop.repeat(4), strings: [3, 2, 1], direction: 'down' });
    expect(down.ranOut).toMatchObject({ change: down.grips.length });
  });

  it('says which first grips there are', () => {
    const { error } = refusal(() =>
      path({ chart: loop, strings: [4, 3, 2], start: { inversion: 0, fret: 9 } })
    );
    expect(error).toMatchObject({ code: 'no-such-grip', path: 'start' });
    expect(error.message).toContain('inversion 0 at fret 8');
  });
});

describe('what cannot be played', () => {
  it.each([
    [() => shape({ chord: 'C', position: 23 }), 'off-the-neck'],
    [() => shape({ chord: 'C', position: 5, tuning: 'E2 H2 D3' }), 'bad-tuning'],
    [() => shape({ chord: 'C', position: 5, span: 9 }), 'bad-span'],
    [() => shape({ chord: 'C', position: 5, organise: 'colours' }), 'bad-request'],
    [() => map({ chart: '| C |', tuning: ['X9'] }), 'bad-tuning'],
    [() => map({ chart: '| C |', frets: 40 }), 'bad-neck'],
    [() => map({ chart: '| C |', approach: 'magic' }), 'unknown-approach'],
    [() => map({ chart: '' }), 'empty-chart'],
    [() => units({ chord: 'Czz' }), 'bad-chord'],
    [() => units({ chord: 'C', scale: 'C purple' }), 'bad-scale'],
    [() => voicings({ chord: 'C', type: 'drop2', strings: [4, 3, 2, 1] }), 'too-few-tones'],
    [() => voicings({ chord: 'C5', type: 'closed', strings: [3, 2, 1] }), 'too-few-tones'],
    [() => voicings({ chord: 'C', type: 'closed', strings: [7, 6, 5] }), 'no-such-string'],
    [() => voicings({ chord: 'C', type: 'closed', strings: [1, 2, 3] }), 'bad-string-set'],
    [() => voicings({ chord: 'C', type: 'closed', strings: [4, 3, 2, 1] }), 'bad-string-set'],
    [() => voicings({ chord: 'C', type: 'wide', strings: [4, 3, 2] }), 'bad-request'],
    [
      () => path({ chart: '| C |', strings: [3, 2, 1], tuning: 'bass', direction: 'sideways' }),
      'bad-request'
    ],
    [() => path({ chart: '| C |', strings: [6, 5, 4], tuning: 'bass' }), 'no-such-string']
  ])('%#: is refused with a sentence', (work, code) => {
    const { status, error } = refusal(work);
    expect(status).toBe(400);
    expect(error.code).toBe(code);
    expect(error.message).toMatch(/\.$/);
  });
});
