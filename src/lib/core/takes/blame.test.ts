/** What Corvel itself plays perfectly is never blamed, and what is constant in a player's time changes nothing that is said of the harmony. */
import { describe, expect, it } from 'vitest';
import { DEMO_CHARTS } from '../../scenario/charts';
import { excerptOf } from '../harmony/excerpt';
import { swingUnder, swung } from '../line/sound';
import { ticksOf, type LineNote } from '../line/model';
import { FEELS, feelOf } from '../practice/feel';
import { quarterTempo, swingAt, swingOver } from '../practice/pulse';
import { judgeTake, type Judgement } from './judge/judge';
import { habitsOf, remarksOn } from './judge/remarks';
import { meantBy } from './meant';
import { perform } from './player/perform';
import { tuneOf, type Tune } from './testing';

/** A minor tune in flats, a pop loop in sharps, a waltz, a slow one in 12/8 and one in 6/8 beside the demo's. */
const TEXTS = [
  ...DEMO_CHARTS.map(({ text }) => text),
  '{key: Gb}\n{style: pop or folk}\n| Gb | Ebm | Cb | Db | Gb | Ebm | Cb | Db |',
  '{key: F#m}\n{time: 6/8}\n| F#m | D | A | E | F#m | D | E | F#m |',
  '{key: Bbm}\n{time: 12/8}\n{style: blues}\n| Bbm7 | Ebm7 | Bbm7 | % | Ebm7 | % | Bbm7 | % | Gbmaj7 | F7 | Bbm7 | F7 |'
];
const IN_FULL = process.env.CORVEL_LARGE !== undefined;
const LEVELS = ['phrases', 'without a stop', 'arpeggio', 'skeleton', 'led in'] as const;

/** A line played as it is written, in a feel at a tempo, so many seconds late and so much faster. */
function takeOf(
  tune: Tune,
  line: readonly LineNote[],
  { tempo, feel, late = 0, faster = 0 }: { tempo: number; feel: string; late?: number; faster?: number }
) {
  const { form, analysis } = tune.ground;
  const { bars } = excerptOf(form, analysis, { kind: 'form' })!;
  const ratio = swingAt(FEELS.find(({ id }) => id === feel)!.swing, quarterTempo(tempo, bars[0]!));
  // Triplets and sixteenths are played as written, as the band plays them.
  const swing = swingUnder(line, swingOver(bars, ratio));
  const second = (tick: number) => 2 + (swung(tick / ticksOf(1), swing) * 60) / tempo / (1 + faster) + late;
  const notes = perform(line, {
    skill: 1,
    seed: 1,
    secondOf: second,
    changes: form.changes.map(({ start }) => ticksOf(start))
  });
  return { notes, clock: { tempo, start: 2 }, swing: ratio };
}
function judgementOf(
  tune: Tune,
  line: readonly LineNote[],
  wish: Parameters<typeof takeOf>[2],
  targets = meantBy(line, tune.ground.analysis.changes, tune.ground.form)
): Judgement {
  return judgeTake({ ...takeOf(tune, line, wish), targets }, tune.ground);
}

describe('a line of Corvel’s own, played perfectly', () => {
  it.each(LEVELS)('is not blamed, in any feel at 60 to 240: %s', (level) => {
    const blamed: string[] = [];
    TEXTS.forEach((text, i) => {
      const tune = tuneOf(text, level, i + 1);
      const own = feelOf(null, tune.ground.meter).id;
      const ways = [
        [60, own],
        [120, 'swing'],
        [180, 'shuffle'],
        [240, 'straight']
      ] as const;
      // Two of the four for each tune, in turn; all of them in the bench.
      for (const [tempo, feel] of ways.filter((_, n) => IN_FULL || n % 2 === i % 2)) {
        const judgement = judgementOf(tune, tune.line, { tempo, feel });
        for (const { kind, text: said } of remarksOn(judgement, tune.ground))
          if (kind !== 'well') blamed.push(`${i} ${tempo} ${feel}: ${said}`);
        const { hits } = judgement.figures;
        if (hits !== null && hits < 1) blamed.push(`${i} ${tempo} ${feel}: ${Math.round(100 * hits)} % hit`);
      }
    });
    expect(blamed).toEqual([]);
  });

  it('is not blamed as the target line that it was played to', () => {
    for (const text of TEXTS) {
      const tune = tuneOf(text, 'skeleton');
      const judgement = judgementOf(tune, tune.line, { tempo: 100, feel: 'straight' }, [...tune.targets]);
      expect(judgement.figures.hits).toBe(1);
      expect(remarksOn(judgement, tune.ground).filter(({ kind }) => kind !== 'well')).toEqual([]);
    }
  });
});

/** What is said of the harmony, without times. */
const harmony = ({ changes, figures }: Judgement) => ({
  changes: changes.map(({ verdict, landed, target }) => [verdict, landed?.degree, target?.met]),
  outlined: figures.outlined,
  hits: figures.hits,
  beginsOn: figures.beginsOn?.degree
});

describe('what is constant in a player’s time', () => {
  const tunes = TEXTS.slice(0, 5).map((text, i) => tuneOf(text, i % 2 ? 'phrases' : 'without a stop', 3));
  const phrased = tunes[1]!;
  it.each([
    ['80 ms late', { late: 0.08 }],
    ['60 ms early', { late: -0.06 }],
    ['rushing by 3 %', { faster: 0.03 }],
    ['dragging by 4 %', { faster: -0.04 }],
    ['late and rushing', { late: 0.07, faster: 0.02 }]
  ])('changes nothing of the harmony: %s', (_, wish) => {
    for (const tune of tunes) {
      const plain = judgementOf(tune, tune.line, { tempo: 120, feel: 'straight' });
      const moved = judgementOf(tune, tune.line, { tempo: 120, feel: 'straight', ...wish });
      expect(harmony(moved)).toEqual(harmony(plain));
    }
  });

  it('is heard alike straight and swung', () => {
    for (const tune of tunes) {
      const plain = judgementOf(tune, tune.line, { tempo: 110, feel: 'straight' });
      for (const feel of ['swing', 'shuffle']) {
        const swung = judgementOf(tune, tune.line, { tempo: 110, feel });
        expect(harmony(swung)).toEqual(harmony(plain));
        expect(swung.time.swing).toBeGreaterThan(0.6);
      }
      expect(plain.time.swing).toBeCloseTo(0.5, 1);
    }
  });

  it('is measured, and said once', () => {
    const [tune] = tunes as [Tune];
    const late = judgementOf(tune, tune.line, { tempo: 120, feel: 'straight', late: 0.08 });
    expect(late.time.offset).toBeCloseTo(0.08, 2);
    expect(late.seams).toEqual([]);
    expect(remarksOn(late, tune.ground).map(({ text }) => text)).toContain(
      'You lie 80 ms behind the beat throughout. If that is not meant, check the latency of your input.'
    );
    const rushing = judgementOf(tune, tune.line, { tempo: 120, feel: 'straight', faster: 0.03 });
    expect(rushing.time.drift).toBeCloseTo(0.03, 3);
    expect(remarksOn(rushing, tune.ground).find(({ kind }) => kind === 'time')?.text).toMatch(
      /^You rush 3 % over the form/
    );
  });

  it('reads a swung half that comes a little late as the half that it is', () => {
    const tune = phrased;
    const own = takeOf(tune, tune.line, { tempo: 119, feel: 'swing' });
    // One note in three 20 ms late, the others as much early: a hand, no grid of its own.
    const uneven = own.notes.map((note, i) => ({ ...note, at: note.at + [0.022, -0.008, -0.012][i % 3]! }));
    const targets = meantBy(tune.line, tune.ground.analysis.changes, tune.ground.form);
    const judgement = judgeTake({ ...own, notes: uneven, targets }, tune.ground);
    const plain = judgeTake({ ...own, targets }, tune.ground);
    expect(judgement.figures.hits).toBe(1);
    expect(judgement.line.map(({ start }) => start)).toEqual(plain.line.map(({ start }) => start));
  });

  it('leaves one late change late', () => {
    const [tune] = tunes as [Tune];
    const targets = meantBy(tune.line, tune.ground.analysis.changes, tune.ground.form);
    const { notes, ...rest } = takeOf(tune, tune.line, { tempo: 120, feel: 'straight', late: 0.08 });
    const at = targets[4]!.at!;
    const second = rest.clock.start + (at * 60) / 120 + 0.08;
    const hesitating = notes.map((note) =>
      Math.abs(note.at - second) < 0.05 ? { ...note, at: note.at + 0.2 } : note
    );
    const judgement = judgeTake({ notes: hesitating, ...rest, targets }, tune.ground);
    expect(judgement.seams).toMatchObject([{ change: targets[4]!.change, times: 1, of: 1 }]);
    expect(judgement.seams[0]!.late).toBeCloseTo(0.4, 1);
  });
});

describe('a take beside the band', () => {
  const tune = tuneOf(TEXTS[0]!, 'phrases', 2);
  it.each([
    [1, 'The take lies a beat after the band: move it?'],
    [-1, 'The take lies a beat before the band: move it?'],
    [2, 'The take lies 2 beats after the band: move it?']
  ])('is found, once, instead of a fault at every change: %d beats', (beats, said) => {
    const judgement = judgementOf(tune, tune.line, {
      tempo: 120,
      feel: 'straight',
      late: (beats * 60) / 120
    });
    expect(judgement.beside).toBe(beats);
    expect(remarksOn(judgement, tune.ground)).toEqual([
      { kind: 'whole', bar: 1, change: 0, text: said, move: -beats }
    ]);
  });

  it('is told by the fret where all of it is a fret too high', () => {
    const own = takeOf(tune, tune.line, { tempo: 120, feel: 'straight' });
    const targets = meantBy(tune.line, tune.ground.analysis.changes, tune.ground.form);
    const high = own.notes.map((note) => ({ ...note, midi: note.midi + 1 }));
    expect(remarksOn(judgeTake({ ...own, notes: high, targets }, tune.ground), tune.ground)[0]!.text).toMatch(
      /^A fret too high at every change/
    );
    const low = own.notes.map((note) => ({ ...note, midi: note.midi - 2 }));
    expect(remarksOn(judgeTake({ ...own, notes: low, targets }, tune.ground), tune.ground)[0]!.text).toMatch(
      /^2 frets too low at every change/
    );
  });
});

describe('habits', () => {
  it('stand beside the remarks, and blame nothing', () => {
    const tune = tuneOf(TEXTS[0]!, 'skeleton');
    const roots = tune.ground.analysis.changes.map(({ start, beats, chord }) => ({
      at: 2 + start / 2,
      seconds: beats / 2 - 0.02,
      midi: 48 + (chord?.rootPc ?? 0)
    }));
    const judgement = judgeTake({ notes: roots, clock: { tempo: 120, start: 2 }, targets: [] }, tune.ground);
    expect(habitsOf(judgement, tune.ground).map(({ id }) => id)).toEqual([
      'root',
      'from below',
      'no silence'
    ]);
    expect(remarksOn(judgement, tune.ground).every(({ text }) => !text.includes('root'))).toBe(true);
  });
});
