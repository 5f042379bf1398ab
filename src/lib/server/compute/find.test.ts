/** Finding lines, as the route is asked from outside. */
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { linesRequest } from '../../api/requests';
import { transposeText } from '../../core/chart/transpose';
import { readSheet } from '../../core/harmony/sheet';
import { chordsOn } from '../../core/line/testing';
import { LINE_LEVELS } from '../../core/line/find/registry';
import { systemOf } from '../../core/neck/systems/registry';
import { soundAt, STANDARD } from '../../core/neck/tuning';
import { arrange } from '../../core/plan/arrange';
import { DEFAULT_PLAN } from '../../core/plan/model';
import { pitchClass } from '../../core/theory/note';
import { DEMO_CHARTS } from '../../scenario/charts';
import { parse } from '../web/body';
import { answerLines } from './lines';

const find = (body: object) => answerLines(parse(linesRequest, body));
type Note = ReturnType<typeof find>['lines'][number]['notes'][number];

const SUFFIXES = ['', 'm', '7', 'maj7', 'm7', 'm7b5', '7b9', 'dim7', '7alt', 'sus4', '6', 'm6', '5'];
const aChord = fc.constantFrom(...chordsOn(SUFFIXES));
/** Bars of one or two chords. */
const aChart = fc
  .array(fc.array(aChord, { minLength: 1, maxLength: 2 }), { minLength: 1, maxLength: 5 })
  .chain((bars) =>
    // In three, two chords share a bar off the beat.
    fc.constantFrom('4/4', '3/4').map((time) => {
      const rows = bars.map((bar) => bar.join(' ')).join(' | ');
      return `{time: ${time}}\n| ${rows} |`;
    })
  );

/** Levels that fill the time between targets. */
const FILLED = ['arpeggio', 'arpeggio and scale', 'without a stop', 'figure', 'sequence'];
const TARGETED = ['skeleton', 'led in', ...FILLED, 'call and answer', 'double stops'];
const endOf = ({ at, beats }: Note) => at + beats;
const firstAt = (notes: readonly Note[], beat: number) =>
  notes.filter(({ at }) => Math.abs(at - beat) < 1e-6);

describe('every line that is found', () => {
  it.each(TARGETED)(
    '%s: lands, stays in its position, sounds what it says, and no note lasts past its chord',
    (level) => {
      fc.assert(
        fc.property(
          aChart,
          fc.integer({ min: 1, max: 12 }),
          fc.constantFrom(2, 3, 4),
          fc.integer({ min: 0, max: 3 }),
          (chart, position, subdivision, seed) => {
            const { lines, noLine } = find({ chart, level, position, subdivision, seed });
            if (noLine) {
              expect(noLine.message).toMatch(/\.$/);
              return;
            }
            const { notes } = lines[0]!;
            const targets = find({
              chart,
              level: 'skeleton',
              position,
              ...(level === 'figure' ? { degrees: ['1'] } : {})
            }).lines[0]!.notes;
            const { changes } = readSheet(chart).form;
            for (const target of targets) {
              const landed = firstAt(notes, target.at).map(({ midi }) => midi);
              // A figure that does not fit from the target begins on the same tone in another octave.
              if (level === 'figure') expect(landed.map((midi) => midi % 12)).toEqual([target.midi % 12]);
              else if (level !== 'double stops') expect(landed).toEqual([target.midi]);
              else expect(landed.length).toBeGreaterThan(0);
            }
            notes.forEach((note, i) => {
              expect(soundAt(STANDARD, note.string!, note.fret!)).toBe(note.midi);
              if (note.fret! > 0) {
                expect(note.fret).toBeGreaterThanOrEqual(position - 1);
                expect(note.fret).toBeLessThanOrEqual(position + 4);
              }
              const own = changes.findLast(({ start }) => start <= note.at + 1e-6)!;
              expect(endOf(note)).toBeLessThanOrEqual(own.start + own.beats + 1e-6);
              const next = notes.slice(i + 1).find(({ at }) => at > note.at);
              if (next) expect(endOf(note)).toBeLessThanOrEqual(next.at + 1e-6);
            });
          }
        ),
        { numRuns: 12 }
      );
    }
  );

  it.each([...FILLED, 'enclosures'])(
    '%s: every note is of the choice or the chord, or leads by a semitone into what follows',
    (name) => {
      const kind = name === 'enclosures' ? { level: 'figure', figure: name } : { level: name };
      fc.assert(
        fc.property(aChart, fc.integer({ min: 2, max: 9 }), (chart, position) => {
          const { analysis, chosen } = arrange(
            { sheet: readSheet(chart), plan: DEFAULT_PLAN },
            STANDARD,
            systemOf('positions')
          );
          for (const { notes } of find({ chart, ...kind, position }).lines) {
            notes.forEach(({ midi, at }, i) => {
              const { chord, index } = analysis.changes.findLast(({ start }) => start <= at + 1e-6)!;
              const home = [...chord!.pitchClasses, ...chosen[index]!.notes.map(pitchClass)];
              const next = notes[i + 1];
              if (!home.includes(midi % 12) && next) expect(Math.abs(next.midi - midi)).toBe(1);
            });
          }
        }),
        { numRuns: 20 }
      );
    }
  );

  it('leads chromatically off the beat alone, so that nothing it finds clashes there', () => {
    fc.assert(
      fc.property(aChart, fc.integer({ min: 2, max: 9 }), (chart, position) => {
        const { notes } = find({ chart, level: 'without a stop', position }).lines[0]!;
        for (const { role, at } of notes) if (role === 'outside') expect(at % 1).not.toBe(0);
      }),
      { numRuns: 30 }
    );
  });

  it('is the same line higher where the chart is higher and the hand as many frets further', () => {
    const major = fc.constantFrom(
      'without a stop',
      'arpeggio',
      'arpeggio and scale',
      'double stops',
      'skeleton'
    );
    fc.assert(
      fc.property(
        major,
        fc.integer({ min: 3, max: 7 }),
        fc.integer({ min: 1, max: 5 }),
        (level, position, up) => {
          const text = '{key: G}\n| Am7 | D7b9 | Gmaj7 | Em7 |';
          const { key } = readSheet(text).analysis;
          const notes = (chart: string, at: number) =>
            find({ chart, level, position: at }).lines[0]!.notes.map(({ at: when, midi, string, fret }) => [
              when,
              midi,
              string,
              fret
            ]);
          expect(notes(transposeText(text, key, up), position + up)).toEqual(
            notes(text, position).map(([when, midi, string, fret]) => [when, midi! + up, string, fret! + up])
          );
        }
      ),
      { numRuns: 20 }
    );
  });

  it('is there again with the same seed, and another with another', () => {
    const chart = '{key: Ab}\n| Bbm7 | Eb7 | Abmaj7 | F7alt |';
    const midis = (seed: number) =>
      find({ chart, level: 'arpeggio', position: 4, seed }).lines[0]!.notes.map(({ midi, at }) => [midi, at]);
    expect(midis(7)).toEqual(midis(7));
    expect(new Set([0, 1, 2, 3, 4].map((seed) => JSON.stringify(midis(seed)))).size).toBeGreaterThan(3);
  });

  it('costs what its parts add up to, and no more than the next best', () => {
    const { lines } = find({
      chart: '| Em7b5 | A7b9 | Dm7 | G7 |',
      level: 'without a stop',
      alternatives: 5
    });
    const costs = lines.map(({ cost }) => cost);
    expect(costs).toEqual([...costs].sort((a, b) => a - b));
    expect(lines).toHaveLength(5);
    for (const { cost, parts, exact } of lines) {
      expect(exact).toBe(true);
      expect(Object.values(parts).reduce((sum, part) => sum + part, 0)).toBeCloseTo(cost);
    }
  });
});

describe('a bar that would only repeat the one before', () => {
  const bars = (notes: Note[]) =>
    [0, 1, 2, 3].map((bar) =>
      notes.filter(({ at }) => at >= 4 * bar && at < 4 * bar + 4).map(({ at, midi }) => [at - 4 * bar, midi])
    );

  it('goes another way, among the best sixty-four, and the answer says so', () => {
    const ask = {
      chart: '| C7 | C7 | C7 | C7 |',
      level: 'arpeggio',
      position: 5,
      degrees: ['3'],
      alternatives: 3
    };
    const { lines } = find(ask);
    for (const { notes, exact, cost, parts } of lines) {
      const all = bars(notes);
      for (const [i, bar] of all.entries()) if (i > 0) expect(bar).not.toEqual(all[i - 1]);
      expect(exact).toBe(false);
      expect(Object.values(parts).reduce((sum, part) => sum + part, 0)).toBeCloseTo(cost);
    }
    // A figure repeats: that is what it is for.
    const figure = find({ ...ask, level: 'figure', degrees: ['1'] }).lines[0]!;
    expect(figure.exact).toBe(true);
  });
});

describe('denser step by step', () => {
  it('each level has more notes, over the same targets', () => {
    const chart = '{key: F#m}\n| G#m7b5 | C#7b9 | F#m7 | D7 |';
    const grown = ['skeleton', 'led in', 'arpeggio', 'without a stop'].map(
      (level) => find({ chart, level, position: 2 }).lines[0]!.notes
    );
    const counts = grown.map(({ length }) => length);
    expect(counts).toEqual([...new Set(counts)].sort((a, b) => a - b));
    const landings = grown.map((notes) => [0, 4, 8, 12].map((beat) => firstAt(notes, beat)[0]!.midi));
    for (const own of landings) expect(own).toEqual(landings[0]);
  });
});

describe('levels', () => {
  it('without a stop: every eighth, triplet or sixteenth of the form', () => {
    const chart = '{key: Bb}\n| Cm7 | F7 |';
    for (const subdivision of [2, 3, 4]) {
      const { notes } = find({ chart, level: 'without a stop', subdivision, position: 3 }).lines[0]!;
      expect(notes.map(({ at }) => Number((at * subdivision).toFixed(6)))).toEqual(
        Array.from({ length: 8 * subdivision }, (_, i) => i)
      );
    }
    // In 12/8 the eighths are the beats.
    const { notes } = find({ chart: '{time: 12/8}\n| Cm7 |', level: 'without a stop', subdivision: 3 })
      .lines[0]!;
    expect(notes.map(({ at }) => at)).toEqual(Array.from({ length: 12 }, (_, i) => i));
  });

  it('figure: the cell on each change, from its own root', () => {
    const { notes } = find({ chart: '| Cmaj7 | Am7 |', level: 'figure', figure: '1 2 3 5', position: 7 })
      .lines[0]!;
    const cells = [0, 2, 4, 6].map((at) =>
      notes.filter((note) => note.at >= at && note.at < at + 2).map(({ degree }) => degree)
    );
    expect(cells).toEqual([
      ['1', '9', '3', '5'],
      ['1', '9', '3', '5'],
      ['1', '9', 'b3', '5'],
      ['1', '9', 'b3', '5']
    ]);
  });

  it.each([2, 3, 4])(
    'figure: an enclosure closes in on its tone, on a beat, %i notes in one',
    (subdivision) => {
      const ask = { chart: '| Fmaj7 | % |', level: 'figure', figure: 'enclosures', position: 5, subdivision };
      const { notes } = find(ask).lines[0]!;
      let closed = 0;
      notes.forEach(({ midi, at }, i) => {
        const [above, below] = [notes[i - 2], notes[i - 1]];
        if (!above || !below || midi - below.midi !== 1 || ![2, 3].includes(above.midi - below.midi)) return;
        closed++;
        expect(at % 1).toBeCloseTo(0, 6);
        expect([0, 4, 5, 9]).toContain(midi % 12);
      });
      expect(closed).toBeGreaterThanOrEqual(subdivision === 2 ? 3 : 4);
    }
  );

  it('figure: the whole cell moves, and none drops an octave inside', () => {
    const rises: Readonly<Record<string, readonly number[]>> = {
      '1 2 3 5': [1, 1, 1],
      '3 5 7 9': [1, 1, 1],
      'up to the 9': [1, 1, 1, 1],
      '1 3 5 7': [1, 1, 1, -1, -1, -1, -1],
      '5 down, up to 7': [-1, -1, -1, 1, 1, 1]
    };
    let [cells, kept] = [0, 0];
    for (const { text } of DEMO_CHARTS)
      for (const [figure, signs] of Object.entries(rises))
        for (const position of [3, 7]) {
          const { lines } = find({ chart: text, level: 'figure', figure, position });
          const notes = lines[0]?.notes ?? [];
          for (const { start, beats, chord } of readSheet(text).form.changes) {
            const size = signs.length + 1;
            const own = notes.filter(({ at }) => at >= start - 1e-6 && at < start + beats - 1e-6);
            if (!chord || own.length < size) continue;
            for (let i = 0; i + size <= own.length; i += size) {
              cells++;
              const steps = signs.map((_, n) => own[i + n + 1]!.midi - own[i + n]!.midi);
              // Two numbers may be one pitch, as 3 and 4 of an altered scale.
              if (steps.every((step, n) => [signs[n], 0].includes(Math.sign(step)) && Math.abs(step) < 12))
                kept++;
            }
          }
        }
    expect(cells).toBeGreaterThan(600);
    expect(kept / cells).toBeGreaterThan(0.99);
  });

  it('arpeggio and scale: up first, or down first where the reverse is asked', () => {
    const ask = (figure?: string) =>
      find({
        chart: '| Gm7 | C7 |',
        level: 'arpeggio and scale',
        position: 5,
        column: '3',
        ...(figure ? { figure } : {})
      }).lines[0]!.notes;
    const rise = (notes: Note[]) => notes[2]!.midi - notes[0]!.midi;
    expect(rise(ask())).toBeGreaterThan(0);
    expect(rise(ask('scale and arpeggio'))).toBeLessThan(0);
  });

  it('motif: rhythm and contour are carried, shifted exactly or led to the nearest tones', () => {
    const chart = '{key: C}\n| Dm7 | G7 | Cmaj7 | A7 |';
    const notes = [62, 65, 64, 69].map((midi, i) => ({ at: i * 0.75, beats: 0.5, midi }));
    const carried = (how: string) =>
      find({ chart, level: 'motif', position: 5, motif: { notes, over: [{ symbol: 'Dm7', beats: 4 }], how } })
        .lines[0]!.notes;
    for (const how of ['shifted', 'led']) {
      const all = carried(how);
      expect(all.map(({ at }) => at)).toEqual(
        [0, 4, 8, 12].flatMap((bar) => notes.map(({ at }) => bar + at))
      );
      for (const bar of [0, 1, 2, 3]) {
        const own = all.slice(4 * bar, 4 * bar + 4).map(({ midi }) => midi);
        const moves = (line: number[]) => line.slice(1).map((midi, i) => midi - line[i]!);
        if (how === 'shifted') expect(moves(own)).toEqual([3, -1, 5]);
        expect(moves(own).map(Math.sign)).toEqual([1, -1, 1]);
      }
    }
    // The same, where it stands over another change than the first.
    const later = notes.map((note) => ({ ...note, at: note.at + 4, midi: note.midi + 5 }));
    const [line] = find({
      chart,
      level: 'motif',
      position: 5,
      motif: { notes: later, over: 1, how: 'shifted' }
    }).lines;
    expect(line!.notes.map(({ at }) => at % 4)).toEqual(
      [0, 1, 2, 3].flatMap(() => notes.map(({ at }) => at))
    );
    const roles = carried('led').map(({ role }) => role);
    expect(roles).not.toContain('outside');
  });

  it('motif: each time it comes it may be another form of itself', () => {
    const chart = '{key: C}\n| Cmaj7 | % | Cmaj7 | % | Cmaj7 | % | Cmaj7 | % |';
    const notes = [64, 65, 67, 60].map((midi, i) => ({ at: [0, 0.5, 1, 2][i]!, beats: 0.5, midi }));
    const carried = (how: string, operations: string[]) =>
      find({
        chart,
        level: 'motif',
        motif: { notes, over: [{ symbol: 'Cmaj7', beats: 4 }], how, operations }
      }).lines[0]!.notes;
    const times = (own: Note[], bar: number) =>
      own.filter(({ at }) => at >= 4 * bar && at < 4 * bar + 4).map(({ at }) => at - 4 * bar);
    const pitches = (own: Note[], bar: number) =>
      own.filter(({ at }) => at >= 4 * bar && at < 4 * bar + 4).map(({ midi }) => midi);

    const later = carried('shifted', ['repeat', 'half a beat later', 'a beat later', 'diminish']);
    expect([0, 1, 2, 3].map((bar) => times(later, bar))).toEqual([
      [0, 0.5, 1, 2],
      [0.5, 1, 1.5, 2.5],
      [1, 1.5, 2, 3],
      [0, 0.25, 0.5, 1]
    ]);
    for (const bar of [0, 1, 2, 3]) expect(pitches(later, bar)).toEqual([64, 65, 67, 60]);

    const slow = carried('shifted', ['augment', 'repeat']);
    expect(slow.slice(0, 4).map(({ at, beats }) => [at, beats])).toEqual([
      [0, 1],
      [1, 1],
      [2, 1],
      [4, 1]
    ]);
    expect(times(slow, 2)).toEqual([0, 0.5, 1, 2]);

    const head = carried('shifted', ['repeat', 'fragment']);
    expect(pitches(head, 1)).toEqual([64, 65, 67]);

    // Led, it stays within the scale; upside down what rose falls.
    const turned = carried('led', ['repeat', 'invert']);
    const signs = (own: number[]) => own.slice(1).map((midi, i) => Math.sign(midi - own[i]!));
    expect(signs(pitches(turned, 1))).toEqual(signs(pitches(turned, 0)).map((sign) => -sign));
    expect(turned.every(({ midi }) => [0, 2, 4, 5, 7, 9, 11].includes(midi % 12))).toBe(true);

    const [own, other] = [0, 1].map((bar) => pitches(carried('shifted', ['repeat', 'other ending']), bar));
    expect(other!.slice(0, 3)).toEqual(own!.slice(0, 3));
    expect(other![3]).not.toBe(own![3]);
    expect([0, 4, 7, 11]).toContain(other![3]! % 12);
  });

  it('motif: a note that pushes into the next chord is not cut, and is led against that chord', () => {
    // A B C, the last half a beat before the bar line: over Cm7 it becomes C, over Dbmaj7 C, over G7 a tone of G7.
    const notes = [62, 64, 65, 67].map((midi, i) => ({
      at: [1, 2, 3, 3.5][i]!,
      beats: i === 3 ? 1 : 0.5,
      midi
    }));
    const all = find({
      chart: '{key: F}\n| Dm7 | Db7 | Cm7 | F7 |',
      level: 'motif',
      motif: { notes, over: [{ symbol: 'Dm7', beats: 4 }], how: 'led' }
    }).lines[0]!.notes;
    const pushes = all.filter(({ at }) => at % 4 === 3.5);
    expect(pushes).toHaveLength(4);
    expect(pushes.slice(0, 3).map(({ beats, change }) => [beats, change])).toEqual([
      [1, 1],
      [1, 2],
      [1, 3]
    ]);
    expect(pushes[3]!.beats).toBe(0.5);
    // Over D♭7: none of its notes is G natural or C natural.
    expect([1, 3, 5, 6, 8, 10, 11, 7]).toContain(pushes[0]!.midi % 12);
    expect(pushes[0]!.role).not.toBe('outside');
  });

  it('motif: what cannot be done with one is told', () => {
    expect(() =>
      find({
        chart: '| Dm7 | G7 |',
        level: 'motif',
        motif: { notes: [{ at: 0, beats: 1, midi: 62 }], over: 0, operations: ['backwards'] }
      })
    ).toThrow(/nothing that is done with a motif; use one of repeat/);
  });

  it('call and answer: silence after the call, the head again with its contour', () => {
    const { notes } = find({ chart: '| Dm7 | G7 | Cmaj7 | A7 |', level: 'call and answer', position: 5 })
      .lines[0]!;
    const bar = (i: number) => notes.filter(({ at }) => at >= 4 * i && at < 4 * i + 4);
    expect(endOf(bar(0).at(-1)!)).toBeLessThanOrEqual(3);
    const head = (i: number) => bar(i).filter(({ at }) => at < 4 * i + 2);
    expect(head(1).map(({ at }) => at - 4)).toEqual(head(0).map(({ at }) => at));
    const contour = (own: Note[]) => own.slice(1).map(({ midi }, i) => Math.sign(midi - own[i]!.midi));
    expect(contour(head(1))).toEqual(contour(head(0)));
    // The answer is the shorter one, with air after it.
    expect(bar(1).length).toBeLessThan(bar(0).length);
    expect(endOf(bar(1).at(-1)!)).toBeLessThanOrEqual(7);
  });

  it('melody and answer: two bars of melody, two of one’s own that start on it', () => {
    const chart = '{melody: G4:2 A4 Bb4 | D5:3 C5 | Bb4:4 | G4:4}\n| Gm7 | Cm7 | Gm7 | D7 |';
    const { notes } = find({ chart, level: 'melody and answer', position: 5 }).lines[0]!;
    expect(notes.filter(({ at }) => at < 8).map(({ midi }) => midi)).toEqual([67, 69, 70, 74, 72]);
    expect(firstAt(notes, 8)[0]!.midi % 12).toBe(pitchClass('Bb'));
    expect(notes.at(-1)!.midi % 12).toBe(pitchClass('G'));
    expect(find({ chart: '| Gm7 |', level: 'melody and answer' }).noLine!.message).toContain('no melody');
  });

  it('sequence: a cell comes again moved, under the hand, nothing over five frets away', () => {
    let [moved, all] = [0, 0];
    for (const { text } of DEMO_CHARTS)
      for (const ask of [
        { position: 5 },
        { position: 9, subdivision: 4 },
        { seed: 3 },
        { subdivision: 3, seed: 8 }
      ]) {
        const { notes } = find({ chart: text, level: 'sequence', ...ask }).lines[0]!;
        notes.forEach((note, i) => {
          const next = notes[i + 1];
          if (next && note.fret! > 0 && next.fret! > 0)
            expect(Math.abs(next.fret! - note.fret!)).toBeLessThanOrEqual(5);
        });
        for (const { start, beats, chord } of readSheet(text).form.changes) {
          const own = notes.filter(({ at }) => at >= start - 1e-6 && at < start + beats - 1e-6);
          if (!chord || own.length < 8) continue;
          all++;
          // Some length of cell whose contour comes again at once.
          const signs = own.slice(1).map(({ midi }, i) => Math.sign(midi - own[i]!.midi));
          const again = [3, 4, 5, 6].some((size) =>
            signs
              .slice(0, size - 1)
              .every((sign, n) => signs[size + n] === undefined || sign === signs[size + n])
          );
          if (again) moved++;
        }
      }
    expect(all).toBeGreaterThan(100);
    expect(moved / all).toBeGreaterThan(0.95);
  });

  it('double stops: two strings at once, thirds and sixths, the 3 and 7 of a dominant', () => {
    const { notes } = find({ chart: '| Gmaj7 | E7 | Am7 | D7 |', level: 'double stops', position: 5 })
      .lines[0]!;
    const starts = [...new Set(notes.map(({ at }) => at))];
    expect(notes.every(({ string }) => string! <= 4)).toBe(true);
    for (const at of starts) {
      const both = firstAt(notes, at);
      expect(both).toHaveLength(2);
      expect(both[0]!.string).not.toBe(both[1]!.string);
      expect([3, 4, 6, 8, 9]).toContain(both[1]!.midi - both[0]!.midi);
    }
    const power = find({ chart: '| E5 | A5 |', level: 'double stops', position: 7 }).lines[0]!.notes;
    expect([5, 7]).toContain(power[1]!.midi - power[0]!.midi);
  });
});

describe('what cannot be had', () => {
  it('says which change and what would give it', () => {
    const strings = { chart: '| Cmaj7 |', level: 'arpeggio', window: { from: 1, to: 1 }, strings: [6] };
    expect(find(strings).noLine).toMatchObject({ change: 0 });
    expect(find({ chart: '| N.C. |', level: 'arpeggio' }).lines).toEqual([]);
    expect(find({ chart: '| C |', level: 'motif' }).noLine!.message).toContain('motif');
  });

  it('refuses levels, figures and parts that are none', () => {
    expect(() => find({ chart: '| C |', level: 'shredding' })).toThrow();
    expect(() => find({ chart: '| C |', level: 'figure', figure: '9 9 9' })).toThrow();
    expect(() => find({ chart: '| C |', level: 'arpeggio', from: 4 })).toThrow();
    expect(LINE_LEVELS.map(({ id }) => id)).toContain('phrases');
  });

  it('has no note with two signs over a flat seventh chord of a blues', () => {
    const chart =
      '{key: Eb}\n{feel: shuffle}\n| Eb7 | Ab7 | Eb7 | % | Ab7 | % | Eb7 | C7b9 | Fm7 | Bb7 | Eb7 C7 | Fm7 Bb7 |';
    for (const level of ['double stops', 'without a stop', 'arpeggio and scale', 'phrases'])
      for (const seed of [0, 1, 2]) {
        const { notes } = find({ chart, level, seed }).lines[0]!;
        expect(notes.map(({ note }) => note).filter((note) => /##|bb/.test(note))).toEqual([]);
      }
  });

  it('finds one phrase between those that stand: new, or after another one; two eighths of air in dotted beats', () => {
    const chart = '{key: F#m}\n{time: 12/8}\n{tempo: 180}\n| F#m7 | Bm7 | F#m7 | C#7b9 |';
    const of = (more: object) => find({ chart, level: 'phrases', seed: 3, ...more });
    // In any order.
    const keep = [
      { from: 42, to: 46 },
      { from: 36, to: 39 },
      { from: 0, to: 9 }
    ];
    const one = of({ keep, only: { bar: 2, bars: 1 } }).lines[0]!.notes;
    expect(one.length).toBeGreaterThanOrEqual(3);
    for (let seed = 1; seed <= 24; seed++)
      for (const note of of({ seed, keep, only: { bar: 2, bars: 2 } }).lines[0]?.notes ?? []) {
        expect(note.at).toBeGreaterThanOrEqual(11 - 1e-6);
        expect(endOf(note)).toBeLessThanOrEqual(34 + 1e-6);
      }
    const notes = one.map(({ at, beats, string, fret }) => ({ at, beats, string, fret }));
    const again = of({ only: { bar: 3, bars: 1, like: { notes, bar: 2, how: 'same rhythm' } } }).lines[0]!
      .notes;
    expect(again.map(({ at }) => at - 12)).toEqual(one.map(({ at }) => at));
    expect(() => of({ only: { bar: 9, bars: 1 } })).toThrow(/played in 4 bars/);
    expect(() => of({ only: { bar: 2, bars: 1, like: { notes: [], bar: 1, how: 'literal' } } })).toThrow(
      /has no notes/
    );
  });

  it('finds phrases in the style that is asked for, with pickups, and says how they are made', () => {
    const chart = '{key: Bb}\n{tempo: 140}\n| Cm7 | F7 | Bbmaj7 | G7b9 | Cm7 | F7 | Bbmaj7 | % |';
    const of = (more: object) => find({ chart, level: 'phrases', seed: 2, ...more });
    const [line] = of({}).lines;
    expect(line!.phrases!.length).toBeGreaterThan(1);
    for (const { from, to, start } of line!.phrases!) {
      expect(to).toBeGreaterThan(from);
      expect(['pickup', 'after', 'one']).toContain(start);
    }
    // Each note lies in one of the phrases.
    for (const { at } of line!.notes)
      expect(line!.phrases!.some(({ from, to }) => at >= from - 1e-6 && at < to + 1e-6)).toBe(true);
    expect(of({ style: 'rock' }).lines[0]!.notes).not.toEqual(line!.notes);
    expect(of({ alternatives: 3 }).lines).toHaveLength(3);
    expect(of({ pickup: false }).lines[0]!.notes.every(({ at }) => at >= 0)).toBe(true);
    const pinned = of({ fixed: [{ change: 2, string: 2, fret: 3, when: 'on' }] }).lines[0]!.notes;
    expect(
      pinned.some(({ at, midi, string, fret }) => at === 8 && midi === 62 && string === 2 && fret === 3)
    ).toBe(true);
    const blues = of({ approach: 'blues' }).lines[0]!;
    expect(blues.notes.length).toBeGreaterThan(4);
    const [offered] = of({ choices: [{ change: 1, approach: 'modes' }] }).lines;
    expect(offered!.notes.length).toBeGreaterThan(4);
    expect(() => of({ choices: [{ change: 99, approach: 'modes' }] })).toThrow(/no change 99/);
    expect(() => of({ choices: [{ change: 1, approach: 'modes', name: 'Q' }] })).toThrow(/does not offer Q/);
    expect(() => of({ approach: 'nothing' })).toThrow(/no approach/);
    expect(() => of({ density: 2 })).toThrow();
    expect(() => of({ style: 'polka' })).toThrow();
    // What was found can be read by the route that reads lines.
    expect(line!.notes.some(({ at }) => at < 0) || line!.phrases![0]!.start !== 'pickup').toBe(true);
  });

  it('keeps to the part that is asked for', () => {
    const { notes } = find({ chart: '| Dm7 | G7 | Cmaj7 |', level: 'arpeggio', from: 1, to: 1, position: 5 })
      .lines[0]!;
    expect(notes.every(({ at }) => at >= 4 && at < 8)).toBe(true);
  });
});
