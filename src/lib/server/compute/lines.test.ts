/** The routes about lines, as they are asked from outside. */
import { describe, expect, it } from 'vitest';
import { lickFitRequest, lineRequest, moveRequest, outlineRequest } from '../../api/requests';
import { parse } from '../web/body';
import { answerLickFit } from './lick';
import { answerLine } from './line';
import { answerMove } from './move';
import { answerOutline } from './outline';
import { refusal } from './testing';

const read = (body: unknown) => answerLine(parse(lineRequest, body));
const outline = (body: unknown) => answerOutline(parse(outlineRequest, body));
const move = (body: unknown) => answerMove(parse(moveRequest, body));

const eighths = (...midis: number[]) => midis.map((midi, i) => ({ at: i / 2, beats: 0.5, midi }));

describe('line', () => {
  it('tells where the hand is and how often it moves, where every note lies somewhere', () => {
    const notes = [
      { at: 0, beats: 1, string: 3, fret: 5 },
      { at: 1, beats: 1, string: 3, fret: 12 }
    ];
    const { figures } = read({ chart: '| Cm7 |', line: { notes } });
    expect(figures).toMatchObject({ shifts: 1 });
    expect((figures as { positions?: number[] }).positions).toHaveLength(2);
  });
});

describe('line, in words', () => {
  const said = (chart: string, notes: object[]) => read({ chart, line: { notes } }).said;

  it('says how it lands, what clashes and where, and what is done again and again', () => {
    const roots = [50, 55, 48, 57].map((midi, i) => ({ at: 4 * i, beats: 2, midi }));
    expect(said('| Dm7 | G7 | Cmaj7 | Am7 |', roots)).toEqual([
      '100 % of the notes on beats are chord tones.',
      'Of 4 landings 0 % are on a 3 or a 7, 0 % come by step or stay.',
      'The largest leap is 9 semitones.',
      'The longest silence lasts 2 beats.',
      'It begins on the root again and again.',
      'It begins on its lowest note again and again.'
    ]);
    const clash = said('| Cmaj7 |', [
      { at: 0, beats: 2, midi: 60 },
      { at: 2, beats: 2, midi: 65 }
    ]);
    expect(clash.at(-1)).toBe('The 11 of Cmaj7 (bar 1, beat 3) clashes.');
    expect(said('| C |', [])).toEqual(['The line is silent.']);
  });
});

describe('outline', () => {
  const chart = '{key: Gm}\n| Am7b5 | D7b9 | Gm7 |';
  const bar = (at: number, ...midis: number[]) => midis.map((midi, i) => ({ at: at + i, beats: 1, midi }));
  const notes = [...bar(0, 57, 60, 63, 67), ...bar(4, 57, 60, 64, 67), ...bar(8, 55, 58, 62, 65)];

  it('says what is heard at each change, what the chart says, and how to mend it', () => {
    const { windows, share } = outline({ chart, line: { notes } });
    expect(windows.map(({ says, verdict }) => [says, verdict])).toEqual([
      ['Am7b5', 'clear'],
      ['D7b9', 'not'],
      ['Gm7', 'clear']
    ]);
    expect(windows[1]!.heard[0]).toMatchObject({ symbol: 'Am7', same: ['C6'] });
    expect(windows[1]!.mend!.changes.length).toBeGreaterThan(0);
    expect(share).toBeCloseTo(2 / 3);
  });

  it('hears the same whether there is a chart or not', () => {
    const windows = [0, 4, 8].map((from) => ({ from, to: from + 4 }));
    const heard = (body: object) => outline({ line: { notes }, ...body }).windows.map((one) => one.heard);
    expect(heard({ windows })).toEqual(heard({ chart }));
    expect(heard({})).toEqual(heard({ chart }));
    expect(outline({ line: { notes } })).not.toHaveProperty('share');
  });

  it('refuses windows that run backward', () => {
    const windows = [
      { from: 4, to: 8 },
      { from: 0, to: 4 }
    ];
    expect(refusal(() => outline({ line: { notes }, windows }))).toMatchObject({
      status: 400,
      error: { code: 'bad-windows', path: 'windows.1' }
    });
  });
});

describe('move', () => {
  it('to another change, in time and by degrees', () => {
    const chart = '| Dm7 | G7 | Cmaj7 |';
    const { lines } = move({ chart, notes: eighths(62, 65, 69, 72), to: { change: 1 }, how: 'degrees' });
    expect(lines[0]).toMatchObject({ to: 'G7' });
    expect(lines[0]!.notes.map(({ at, midi }) => [at, midi])).toEqual([
      [4, 67],
      [4.5, 71],
      [5, 74],
      [5.5, 77]
    ]);
  });

  it('to all twelve keys, named from the chart’s, each playable', () => {
    const { lines } = move({
      chart: '{key: Ab}\n| Bbm7 | Eb7 |',
      notes: eighths(58, 61, 65, 68),
      to: { keys: 'all' }
    });
    expect(lines.map(({ to }) => to.replace(/,.*/, ''))).toEqual([
      'Ab',
      'A',
      'Bb',
      'B',
      'C',
      'Db',
      'D',
      'Eb',
      'E',
      'F',
      'Gb',
      'G'
    ]);
    for (const { notes } of lines) {
      expect(notes.map(({ midi }) => midi - notes[0]!.midi)).toEqual([0, 3, 7, 10]);
      expect(
        notes.every(({ string, fret, finger }) => string && fret !== undefined && finger !== undefined)
      ).toBe(true);
    }
  });

  it('along the strings by default where places are given', () => {
    const notes = [
      { at: 0, beats: 1, string: 2, fret: 5 },
      { at: 1, beats: 1, string: 2, fret: 8 }
    ];
    const { lines } = move({ notes, to: { semitones: 4 } });
    expect(lines[0]!.notes.map(({ string, fret }) => [string, fret])).toEqual([
      [2, 9],
      [2, 12]
    ]);
    const far = move({ notes, to: { semitones: 20 } });
    expect(far.lines).toEqual([]);
    expect(far.left![0]!.message).toContain('string 2');
  });

  it('from chord to chord, led to the nearest tones of what is played there', () => {
    const { lines } = move({
      notes: eighths(62, 65, 69),
      to: { chord: { from: 'Dm7', to: 'Ebmaj7' } },
      how: 'led'
    });
    for (const { midi } of lines[0]!.notes) expect([0, 2, 3, 5, 7, 8, 10]).toContain(midi % 12);
  });

  it('says what is asked wrongly', () => {
    const notes = eighths(60);
    expect(refusal(() => move({ notes, to: { change: 1 } }))).toMatchObject({ error: { code: 'no-chart' } });
    expect(refusal(() => move({ notes, chart: '| C |', to: { change: 5 } }))).toMatchObject({
      error: { code: 'no-such-change', path: 'to.change' }
    });
    expect(refusal(() => move({ notes, to: { key: { from: 'C', to: 'H' } } }))).toMatchObject({
      error: { code: 'bad-key', path: 'to.key.to' }
    });
    expect(refusal(() => move({ notes, to: { sideways: 3 } }))).toMatchObject({ status: 400 });
  });
});

describe('lick-fit', () => {
  const fit = (body: unknown) => answerLickFit(parse(lickFitRequest, body));
  const lick = {
    over: [
      { symbol: 'Dm7', beats: 4 },
      { symbol: 'G7', beats: 4 }
    ],
    // 1 b3 5 b7 of Dm7, then the 3 of G7 and its arpeggio.
    notes: [62, 65, 69, 72, 71, 67, 65, 62].map((midi, i) => ({ at: i, beats: 1, midi }))
  };

  it('finds every place of the same families in the same motion, the lick moved there', () => {
    const { fits } = fit({
      chart: '{key: Eb}\n| Fm7 | Bb7 | Ebmaj7 | Am7b5 | Cm9 | F13 | Bbmaj7 | % |',
      lick
    });
    expect(fits.map(({ change, stretch, transpose }) => [change, stretch, transpose])).toEqual([
      [4, 1, -2],
      [0, 1, 3]
    ]);
    expect(fits[1]!.notes.map(({ at, midi }) => [at, midi])).toEqual(
      lick.notes.map(({ at, midi }) => [at, midi + 3])
    );
    expect(fits[1]!.landing).toMatchObject({ change: 1, degree: '3' });
    expect(fits[1]!.outline).toBe(1);
    expect(fits[1]!.why).toContain('ii7–V7, 3 semitones up');
  });

  it('offers a lick kept by its key unmoved over I, IV and V, and in another key moved by the key alone', () => {
    // A minor pentatonic of the blues: E G A C A, up to a beat before.
    const blues = {
      over: [{ symbol: 'A7', beats: 4 }],
      by: 'key',
      key: 'A',
      notes: [
        { at: -0.5, beats: 0.5, midi: 64 },
        { at: 0, beats: 0.5, midi: 67 },
        { at: 0.5, beats: 0.5, midi: 69 },
        { at: 1, beats: 1, midi: 72 },
        { at: 2.5, beats: 1, midi: 69 }
      ]
    };
    const { fits } = fit({ chart: '{key: A}\n| A7 | D7 | A7 | E7 |', lick: blues });
    expect(fits.map(({ change }) => change).sort()).toEqual([0, 1, 2, 3]);
    expect(fits.every(({ transpose }) => transpose === 0)).toBe(true);
    for (const { change, notes } of fits)
      expect(notes.map(({ at, midi }) => [at - 4 * change, midi])).toEqual(
        blues.notes.map(({ at, midi }) => [at, midi])
      );
    // It comes to rest on its last note, wherever it stands.
    expect(fits.find(({ change }) => change === 1)!.landing).toMatchObject({ midi: 69, degree: '5' });
    const moved = fit({ chart: '{key: Bb}\n| Bb7 | Eb7 | Bb7 | F7 |', lick: blues }).fits;
    expect(new Set(moved.map(({ transpose }) => transpose))).toEqual(new Set([1]));
    expect(moved).toHaveLength(4);
    // By its chords it stands over the I alone, moved to each dominant.
    const byChord = fit({ chart: '{key: A}\n| A7 | D7 | A7 | E7 |', lick: { ...blues, by: 'chord' } }).fits;
    expect(new Set(byChord.map(({ transpose }) => transpose))).toEqual(new Set([0, 5, -5]));
  });

  it('offers a lick kept by its key nowhere where it denies what sounds', () => {
    const sweet = {
      over: [{ symbol: 'A', beats: 4 }],
      by: 'key',
      key: 'A',
      notes: [
        { at: 0, beats: 2, midi: 73 },
        { at: 2, beats: 2, midi: 76 }
      ]
    };
    // C♯ over A, D6 and F♯m, but not over D7 nor Am7.
    const over = (chart: string) =>
      fit({ chart, lick: sweet })
        .fits.map(({ change }) => change)
        .sort();
    expect(over('{key: A}\n| A | F#m | D7 | Am7 |')).toEqual([0, 1]);
    // A key of the other kind has it nowhere.
    expect(over('{key: Cm}\n| Cm | Fm | Gm | Cm |')).toEqual([]);
  });

  it('takes chords twice or half as long, and chords written as several alike', () => {
    const twice = fit({ chart: '| Dm7 | % | G7 | % |', lick }).fits;
    expect(twice.map(({ change, stretch }) => [change, stretch])).toEqual([
      // The last bar of one and the first of the other are as long as it is.
      [1, 1],
      [0, 2]
    ]);
    expect(twice[1]!.notes.at(-1)).toMatchObject({ at: 14, beats: 2 });
    const half = fit({ chart: '| Em7 A7 | Dmaj7 |', lick }).fits;
    expect(half.map(({ change, stretch, transpose }) => [change, stretch, transpose])).toEqual([[0, 0.5, 2]]);
  });

  it('tells how far it is from what is there already, and fits nowhere where nothing is alike', () => {
    const line = {
      notes: [
        { at: 0, beats: 1, midi: 60 },
        { at: 12, beats: 1, midi: 64 }
      ]
    };
    const { fits } = fit({ chart: '| Cmaj7 | Dm7 | G7 | Cmaj7 |', lick, line });
    expect(fits[0]).toMatchObject({ change: 1, from: 2, to: 2 });
    expect(fit({ chart: '| Dm7 | Gm7 | D7 |', lick }).fits).toEqual([]);
    expect(
      refusal(() => fit({ chart: '| C |', lick: { over: [{ symbol: 'Hx', beats: 4 }], notes: [] } }))
    ).toMatchObject({
      error: { code: 'bad-chord', path: 'lick.over.0.symbol' }
    });
  });
});

describe('the name of a note', () => {
  const over = (note: object) => ({
    chart: '| E7 |',
    line: { notes: [{ at: 0, beats: 1, midi: 68, ...note }] }
  });

  it('is that of the chord of its moment, or the one that is given', () => {
    expect(read(over({})).notes[0]).toMatchObject({ note: 'G#' });
    expect(read(over({ note: 'Ab' })).notes[0]).toMatchObject({ note: 'Ab' });
    expect(read(over({ note: 'Ab' })).notes[0]).not.toHaveProperty('isNamed');
  });

  it('is refused where it does not sound', () => {
    expect(() => read(over({ note: 'A' }))).toThrow(/Note 1 is called A and sounds/);
    expect(() => read(over({ note: 'H' }))).toThrow();
  });
});
