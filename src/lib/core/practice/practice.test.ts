import { beatsOf, endOf, ticksOf } from '../line/model';
import { fitRun, neighbourOf } from '../line/run';
import { excerptOf, playedAt, type Excerpt, type LoopWish } from '../harmony/excerpt';
import { swung } from '../line/sound';
import { DRILLS, type DrillMaterial } from '../line/drills';
import { skeletonLine } from '../line/skeleton';
import { approachesOf } from '../line/approach-notes';
import { systemOf } from '../neck/systems/registry';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { contextOf } from '../approaches/context';
import { modes } from '../approaches/modes';
import { readSheet, type Sheet } from '../harmony/sheet';
import { subjectsOf, tonesOfAll } from '../moment/moment';
import { areasAt } from '../neck/position-map';
import { STANDARD } from '../neck/tuning';
import { FREE_PATH } from '../targets/options';
import { findTargets } from '../targets/path';
import { pitchClass } from '../theory/note';
import { bandEvents, countIn } from './band';
import { feelOf, FEELS } from './feel';
import { shiftOf, tappedTempo, tempoOf } from './ladder';
import { transposeKey, transposeNote, transposeSymbol, transposeText } from '../chart/transpose';

const TUNE = `{key: Gm}
{start_of_grid label="A"}
| Gm6 | Am7b5 D7b9 | Gm6 | % |
{end_of_grid}
{start_of_grid label="B"}
| Cm7 | F7 | Bbmaj7 | D7alt |
{end_of_grid}`;

const excerpt = (wish: LoopWish, text = TUNE): Excerpt => {
  const { form, analysis } = readSheet(text);
  return excerptOf(form, analysis, wish)!;
};

function material(sheet: Sheet, of: Excerpt, perBeat: number): DrillMaterial {
  const { analysis } = sheet;
  const chosen = analysis.changes.map(({ index }) => {
    const context = contextOf(analysis, index);
    return context ? (modes(context)[0] ?? null) : null;
  });
  const positions = analysis.changes.map(() => 5);
  const areas = areasAt(STANDARD, systemOf('positions'), subjectsOf(analysis, chosen), positions);
  const path = findTargets(analysis, {
    ...FREE_PATH,
    degrees: ['3', '7'],
    position: 5,
    standIn: true,
    loop: true
  }).paths[0]!;
  const targets = new Map(path.targets.map(({ change, cell }) => [change, cell]));
  const approaches = approachesOf(analysis, path, chosen, STANDARD, true, () => 'fitting');
  return {
    excerpt: of,
    areas: of.changes.map(({ source }) => areas[source.index] ?? null),
    targets: of.changes.map(({ source }) => targets.get(source.index) ?? null),
    skeleton: skeletonLine(
      analysis,
      sheet.head.meter,
      path,
      approaches,
      tonesOfAll(analysis, STANDARD, positions)
    ).notes,
    perBeat
  };
}

describe('excerpts', () => {
  it('are the form, a section, bars, a drone or a pair', () => {
    expect(excerpt({ kind: 'form' })).toMatchObject({ beats: 32 });
    expect(excerpt({ kind: 'section', bar: 5 }).changes.map(({ source }) => source.symbol)).toEqual([
      'Cm7',
      'F7',
      'Bbmaj7',
      'D7alt'
    ]);
    const bars = excerpt({ kind: 'bars', from: 2, to: 3 });
    expect(bars.changes.map(({ source, start, beats }) => [source.symbol, start, beats])).toEqual([
      ['Am7b5', 0, 2],
      ['D7b9', 2, 2],
      ['Gm6', 4, 4]
    ]);
    expect(excerpt({ kind: 'change', change: 1 })).toMatchObject({ beats: 16 });
    const pair = excerpt({ kind: 'pair', change: 8 });
    expect(pair.changes.map(({ source }) => source.symbol)).toEqual(['D7alt', 'Gm6']);
    expect(playedAt(pair, 4.5)).toBe(1);
  });

  it('are none where a loop ends before its start or there is nothing to play', () => {
    const { form, analysis } = readSheet(TUNE);
    expect(excerptOf(form, analysis, { kind: 'bars', from: 4, to: 3 })).toBeNull();
    expect(excerptOf(form, analysis, { kind: 'bars', from: 0, to: 99 })).toBeNull();
    expect(excerptOf(form, analysis, { kind: 'change', change: 99 })).toBeNull();
    const vamp = readSheet('| Fm7 |');
    expect(excerptOf(vamp.form, vamp.analysis, { kind: 'pair', change: 0 })).toBeNull();
  });

  it('join without gap or overlap', () => {
    for (const wish of [
      { kind: 'form' },
      { kind: 'bars', from: 2, to: 6 },
      { kind: 'pair', change: 3 }
    ] as const) {
      const { changes, beats } = excerpt(wish);
      let at = 0;
      for (const change of changes) {
        expect(change.start).toBeCloseTo(at, 9);
        at += change.beats;
      }
      expect(at).toBeCloseTo(beats, 9);
    }
  });
});

describe('the band', () => {
  const texts = fc
    .array(
      fc.constantFrom('Gm7', 'C7 F7', 'Bbmaj7', 'Ebmaj7 Am7b5 D7b9', 'N.C.', 'C5', 'F13', 'Dsus4', 'Eb/G'),
      {
        minLength: 1,
        maxLength: 6
      }
    )
    .map((bars) => `{key: Bb}\n| ${bars.join(' | ')} |`);

  it('never sounds past a chord, keeps to its registers and says third and seventh on the moment of change', () => {
    fc.assert(
      fc.property(texts, fc.constantFrom(...FEELS), (text, feel) => {
        const { form, analysis } = readSheet(text);
        const of = excerptOf(form, analysis, { kind: 'form' })!;
        const events = bandEvents(of, feel);
        for (const { part, start, beats, midi, velocity } of events) {
          expect(start).toBeGreaterThanOrEqual(0);
          expect(start).toBeLessThan(of.beats);
          expect(velocity).toBeGreaterThan(0);
          expect(velocity).toBeLessThanOrEqual(1);
          if (part !== 'bass' && part !== 'chords') continue;
          const change = of.changes[playedAt(of, start + 1e-6)]!;
          expect(start + beats).toBeLessThanOrEqual(change.start + change.beats + 1e-6);
          if (part === 'chords') {
            const pcs = change.source.chord!.tones.length;
            expect(pcs).toBeGreaterThan(0);
            expect(midi).toBeGreaterThanOrEqual(48);
            expect(midi).toBeLessThanOrEqual(84);
          }
        }
        for (const { source, start } of of.changes) {
          if (!source.chord) continue;
          const heard = events.filter(
            (event) => event.part === 'chords' && Math.abs(event.start - start) < 1e-9
          );
          const degrees = source.chord.tones.filter((tone) => /^b?3$|^b?b?7$/.test(tone));
          for (const degree of degrees) {
            const pc =
              (pitchClass(source.chord.root) + { b3: 3, '3': 4, bb7: 9, b7: 10, '7': 11 }[degree as 'b3']!) %
              12;
            expect(
              heard.map(({ midi }) => midi % 12),
              `${source.symbol} ${degree}`
            ).toContain(pc);
          }
        }
      }),
      { numRuns: 80 }
    );
  });

  it('walks the bass into the next root by a semitone, the last into the first', () => {
    const of = excerpt({ kind: 'form' }, '{key: Bb}\n| Cm7 | F7 | Bbmaj7 | Eb/G | Am7b5 |');
    const bass = bandEvents(of, feelOf('swing', 4)).filter(({ part }) => part === 'bass');
    const at = (beat: number) => bass.find(({ start }) => Math.abs(start - beat) < 0.01)!.midi % 12;
    expect([0, 4, 8, 12, 16].map(at)).toEqual([0, 5, 10, 7, 9]);
    [4, 8, 12, 16, 20].forEach((next) => {
      const lead = (at(next % 20) - at(next - 1) + 12) % 12;
      expect([1, 11], `into beat ${next}`).toContain(lead);
    });
  });

  it('has a sound on every beat but a drone and a rest', () => {
    const of = excerpt({ kind: 'form' });
    for (const feel of FEELS.filter(({ id }) => id !== 'drone')) {
      const events = bandEvents(of, feel).filter(({ part }) => part !== 'click');
      for (let beat = 0; beat < of.beats; beat += 4) {
        expect(
          events.some(({ start }) => Math.abs(start - beat) < 1e-9),
          `${feel.id} ${beat}`
        ).toBe(true);
      }
    }
    expect(bandEvents(of, FEELS[0]!).filter(({ part }) => part === 'click')).toHaveLength(32);
  });

  it('swings second eighths and counts in before the start', () => {
    expect(swung(1.5, 2 / 3)).toBeCloseTo(1 + 2 / 3, 9);
    expect(swung(2, 2 / 3)).toBe(2);
    expect(swung(0.25, 0.5)).toBe(0.25);
    expect(countIn(3).map(({ start }) => start)).toEqual([-3, -2, -1]);
  });

  it('knows the feel of a chart', () => {
    expect(feelOf('shuffle', 4).id).toBe('shuffle');
    expect(feelOf('swing', 3).id).toBe('waltz');
    expect(feelOf(null, 4).id).toBe('straight');
    expect(feelOf('slow ballad', 4).id).toBe('ballad');
  });
});

describe('runs', () => {
  it('begin and end where they have to, by neighbours, in any number of notes', () => {
    const sizes = fc.integer({ min: 1, max: 18 });
    fc.assert(
      fc.property(
        sizes,
        fc.nat(),
        fc.nat(),
        fc.integer({ min: 1, max: 40 }),
        fc.constantFrom<1 | -1>(1, -1),
        (size, a, b, count, way) => {
          const [from, to] = [a % size, b % size];
          const run = fitRun(size, from, to, count, way);
          expect(run).toHaveLength(count);
          expect(run.every((i) => i >= 0 && i < size)).toBe(true);
          const moves = run.slice(1).map((i, n) => Math.abs(i - run[n]!));
          expect(moves.every((move) => move <= 1)).toBe(true);
          if (count > Math.abs(to - from)) expect(run.at(-1)).toBe(to);
          if (size > 1) expect(moves.filter((move) => move === 0).length).toBeLessThanOrEqual(1);
        }
      )
    );
  });

  it('lead in from the nearest other pitch', () => {
    expect(neighbourOf([60, 62, 64, 65], 64)).toBe(3);
    expect(neighbourOf([60, 62], 70)).toBe(1);
  });
});

describe('drills', () => {
  const sheet = readSheet(TUNE);

  it.each(DRILLS.map(({ id }) => id))(
    '%s: no note past its chord, no gap in its runs, every landing on its target',
    (id) => {
      const drill = DRILLS.find((one) => one.id === id)!;
      for (const perBeat of [2, 3, 4]) {
        const of = excerptOf(sheet.form, sheet.analysis, { kind: 'form' })!;
        const made = material(sheet, of, perBeat);
        const notes = drill.play(made);
        expect(notes.length).toBeGreaterThanOrEqual(of.changes.length);
        for (const [i, note] of notes.entries()) {
          const change = of.changes[playedAt(of, beatsOf(note.start))]!;
          expect(endOf(note)).toBeLessThanOrEqual(ticksOf(change.start + change.beats));
          expect(Number.isInteger(note.start) && Number.isInteger(note.length)).toBe(true);
          expect(STANDARD.strings[note.place!.string - 1]! + note.place!.fret).toBe(note.midi);
          const next = notes[i + 1];
          if (next) expect(endOf(note)).toBeLessThanOrEqual(next.start);
        }
        for (const [at, change] of of.changes.entries()) {
          const landing = notes.find(({ start }) => start === ticksOf(change.start));
          expect(landing, `${id} ${at}`).toMatchObject({ midi: made.targets[at]!.midi, purpose: 'target' });
        }
      }
    }
  );

  it('lead every run into the next target by a step', () => {
    const of = excerptOf(sheet.form, sheet.analysis, { kind: 'form' })!;
    const made = material(sheet, of, 2);
    const notes = DRILLS.find(({ id }) => id === 'up')!.play(made);
    for (const [at] of of.changes.entries()) {
      const last = notes.filter((note) => playedAt(of, beatsOf(note.start)) === at).at(-1)!;
      const next = made.targets[(at + 1) % of.changes.length]!;
      expect(Math.abs(last.midi - next.midi)).toBeLessThanOrEqual(2);
    }
  });

  it('move as a whole with the key', () => {
    const up = readSheet(transposeText(TUNE, 'G', 2));
    const of = excerptOf(up.form, up.analysis, { kind: 'form' })!;
    expect(of.changes.map(({ source }) => source.symbol).slice(0, 3)).toEqual(['Am6', 'Bm7b5', 'E7b9']);
    expect(up.analysis.changes.map(({ numeral }) => numeral)).toEqual(
      sheet.analysis.changes.map(({ numeral }) => numeral)
    );
  });
});

describe('from round to round', () => {
  it('climbs the ladder after rounds, or after clean ones', () => {
    const ladder = { start: 60, goal: 80, step: 8, rounds: 2, onlyClean: false };
    expect([0, 1, 2, 3, 4, 5, 6, 20].map((round) => tempoOf(ladder, round, 0))).toEqual([
      60, 60, 68, 68, 76, 76, 80, 80
    ]);
    expect(tempoOf({ ...ladder, onlyClean: true }, 20, 2)).toBe(68);
    expect(tempoOf({ ...ladder, start: 120, goal: 100 }, 4, 0)).toBe(104);
  });

  it('goes round all twelve keys in every order', () => {
    for (const order of ['fourths', 'fifths', 'up', 'down', 'whole'] as const) {
      const keys = Array.from({ length: 12 }, (_, round) => shiftOf(order, round));
      expect(new Set(keys).size, order).toBe(12);
      expect(keys[0]).toBe(0);
    }
    expect(shiftOf('stay', 7)).toBe(0);
  });

  it('hears the tempo of taps', () => {
    expect(tappedTempo([0, 0.5, 1, 1.5])).toBe(120);
    expect(tappedTempo([0])).toBeNull();
    expect(tappedTempo([0, 9])).toBeNull();
  });

  it('spells other keys as players do', () => {
    expect(transposeSymbol('Ebmaj7', 'Eb', 2)).toBe('Fmaj7');
    expect(transposeSymbol('C7/E', 'F', 3)).toBe('Eb7/G');
    expect(transposeNote('F', 'Eb', 5)).toBe('Bb');
    expect(transposeKey('f# minor', 'F#', 1)).toBe('G minor');
    expect(transposeText('{key: Eb}\n{title: Bb}\n| Eb | Bb7 |\n', 'Eb', 2)).toContain('{key: F}');
  });
});
