import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { DEMO_CHARTS } from '../../../scenario/charts';
import { noteOf, ticksOf, type LineNote } from '../../line/model';
import { askedOf, outlineLine } from '../../line/outline';
import { readLine } from '../../line/read';
import { judged, played, START, TEMPO, tuneOf, type Tune } from '../testing';
import { DRILLS } from '../../line/drills';
import { judgeTake, type Judgement, type TakeFigures } from './judge';
import { remarksOn } from './remarks';

const TUNES = DEMO_CHARTS.map(({ text }) => tuneOf(text));
const SEEDS = [1, 2, 3];
const [BLUES] = TUNES;

const mean = (values: readonly number[]) => values.reduce((a, b) => a + b, 0) / values.length;
/** A figure over all tunes, a few takes each. */
const inTheMean = (skill: number, figure: (judgement: Judgement) => number | null) =>
  mean(judgementsAt(skill).map((judgement) => figure(judgement) ?? 0));
const known = new Map<number, readonly Judgement[]>();
/** Takes of one skill, each judged once for all the figures that are read from it. */
function judgementsAt(skill: number): readonly Judgement[] {
  const own =
    known.get(skill) ?? TUNES.flatMap((tune) => SEEDS.map((seed) => judged(tune, played(tune, skill, seed))));
  known.set(skill, own);
  return own;
}

/** One note, its beats after the first beat of the form. */
const note = (beat: number, midi: number, beats = 0.9) => ({
  at: START + (beat * 60) / TEMPO,
  seconds: (beats * 60) / TEMPO,
  midi
});
const CADENCE = tuneOf('{key: C}\n| Dm7 | G7 | Cmaj7 | C6 |');
/** Targets of the cadence set by hand: F, B, E, E. */
const MEANT = [65, 71, 64, 64].map((midi, change) => ({ change, midi }));
const judgeNotes = (notes: ReturnType<typeof note>[], targets = MEANT, tune: Tune = CADENCE) =>
  judgeTake({ notes, clock: { tempo: TEMPO, start: START }, targets }, tune.ground);
const metAt = (judgement: Judgement, change: number) =>
  judgement.changes.find((one) => one.change === change)!.target!;

/** Every chord in eighths up through its tones, from its target on. */
function arpeggios(tune: Tune): LineNote[] {
  return tune.ground.form.changes.flatMap(({ index, start, beats, chord }) => {
    const target = tune.targets.find(({ change }) => change === index);
    if (!chord || !target) return [];
    const tones = Array.from({ length: 24 }, (_, up) => target.midi + up).filter((midi) =>
      chord.pitchClasses.includes(midi % 12)
    );
    return Array.from({ length: Math.round(beats * 2) }, (_, i) =>
      noteOf(ticksOf(start + i / 2), ticksOf(0.5), tones[i % Math.min(4, tones.length)]!)
    );
  });
}

describe('how a landing meets its target', () => {
  it.each([
    ['on the beat', note(4, 71), { met: 'hit', late: 0, octave: 0 }],
    ['a little late', note(4.1, 71), { met: 'hit', late: 0.1, octave: 0 }],
    [
      'late by more than 70 ms and an eighth of a beat',
      note(4.15, 71),
      { met: 'late', late: 0.15, octave: 0 }
    ],
    ['a little early', note(3.85, 71), { met: 'hit', late: -0.15, octave: 0 }],
    ['an octave down', note(4, 59), { met: 'hit', late: 0, octave: -1 }],
    ['late', note(4.6, 71), { met: 'late', late: 0.6, octave: 0 }],
    ['early', note(3.5, 71, 0.4), { met: 'early', late: -0.5, octave: 0 }],
    ['pushed ahead, and held', note(3.5, 71, 1), { met: 'hit', late: -0.5, octave: 0 }],
    ['on another chord tone', note(4, 65), { met: 'chord tone', late: 0 }],
    ['outside', note(4, 66), { met: 'outside', late: 0 }],
    ['too late to be meant', note(6.5, 71), { met: 'silent', late: null }]
  ])('is told: %s', (_, landing, met) => {
    const judgement = judgeNotes([note(0, 65), landing, note(8, 64)]);
    expect(metAt(judgement, 1)).toEqual({ wanted: 71, ...met });
  });

  it('takes a common tone that is held over a change for a hit', () => {
    const judgement = judgeNotes([note(0, 65), note(4, 71), note(8, 64, 8)]);
    expect(metAt(judgement, 3)).toMatchObject({ met: 'hit' });
  });

  it('counts nothing that was left alone against anyone', () => {
    const { changes, figures } = judgeNotes([note(0, 65), note(8, 64)]);
    expect(changes[1]).toMatchObject({ isLeftAlone: true, verdict: 'silence', landed: null });
    expect(figures).toMatchObject({ hits: 1, changes: 2, leftAlone: 2 });
  });

  it('takes a change at which one is always late for a seam, and one that is late once for none', () => {
    const round = (late: number) => (at: number) => [
      note(at, 65),
      note(at + 4 + late, 71),
      note(at + 8, 64),
      note(at + 12, 64)
    ];
    const always = judgeNotes([...round(0.6)(0), ...round(0.8)(16)]);
    expect(always.seams).toEqual([{ change: 1, late: 0.7, times: 2, of: 2 }]);
    expect(always.figures.rounds).toBe(2);
    expect(judgeNotes([...round(0.6)(0), ...round(0)(16)]).seams).toEqual([]);
  });

  it('needs no targets to tell what was landed on', () => {
    const { changes, figures } = judgeNotes([note(0, 65), note(4, 62), note(8, 64)], []);
    expect(changes.map(({ landed }) => landed?.degree)).toEqual(['b3', '5', '3', undefined]);
    expect(changes.every(({ target }) => target === undefined)).toBe(true);
    expect(figures.hits).toBeNull();
  });
});

describe('the take of a player who does what is written', () => {
  it('hits every target of every tune', () => {
    for (const tune of TUNES) {
      const { figures, seams } = judged(tune, played(tune, 1));
      expect(figures.hits).toBe(1);
      expect(figures.fits).toBe(true);
      expect(seams).toEqual([]);
    }
  });

  it('lets nearly every chord be heard, where the line goes through its tones', () => {
    const shares = TUNES.map((tune) => {
      const through = { ...tune, line: arpeggios(tune) };
      return judged(through, played(through, 1)).figures.outlined!;
    });
    expect(mean(shares)).toBeGreaterThan(0.9);
  });

  it('is heard as what is written is', () => {
    for (const tune of TUNES) {
      const { share } = outlineLine(tune.line, askedOf(tune.ground.form.changes));
      expect(judged(tune, played(tune, 1)).figures.outlined).toBeCloseTo(share!, 6);
    }
  });

  it('is read as the line that it was', () => {
    for (const tune of TUNES) {
      const { line } = judged(tune, played(tune, 1));
      const asWritten = readLine({ meter: tune.ground.meter, notes: tune.line }, tune.ground);
      const asPlayed = readLine({ meter: tune.ground.meter, notes: line }, tune.ground);
      expect(asPlayed.landings.map(({ degree }) => degree)).toEqual(
        asWritten.landings.map(({ degree }) => degree)
      );
    }
  });
});

describe('a worse player', () => {
  const SKILLS = [1, 0.75, 0.5, 0.25, 0];
  it.each<[string, (figures: TakeFigures) => number | null, 'falls' | 'rises']>([
    ['hits', ({ hits }) => hits, 'falls'],
    ['what can be heard', ({ outlined }) => outlined, 'falls'],
    ['distance from the change', ({ apart }) => apart, 'rises'],
    ['notes outside', ({ outside }) => outside, 'rises'],
    ['silences before changes', ({ silences }) => silences, 'rises']
  ])('gets worse in the mean: %s', (_, figure, way) => {
    const figures = SKILLS.map((skill) => inTheMean(skill, (judgement) => figure(judgement.figures)));
    const sorted = [...figures].sort((a, b) => (way === 'falls' ? b - a : a - b));
    expect(figures).toEqual(sorted);
    expect(figures[0]).not.toBe(figures.at(-1));
  });

  it('has more seams', () => {
    const seams = SKILLS.map((skill) => inTheMean(skill, (judgement) => judgement.seams.length));
    expect(seams).toEqual([...seams].sort((a, b) => a - b));
  });
});

describe('a take and its chart', () => {
  it('fit each other, and no other chart', () => {
    TUNES.forEach((tune, i) => {
      const other = TUNES[(i + 1) % TUNES.length]!;
      for (const skill of [1, 0.8, 0.5]) {
        expect(judged(tune, played(tune, skill)).figures.fits).toBe(true);
        const strange = judged(tune, played(other, skill));
        expect(strange.figures.fits).toBe(false);
        expect(remarksOn(strange, tune.ground)).toMatchObject([
          { kind: 'whole', text: expect.stringContaining('nowhere') as string }
        ]);
      }
    });
  });

  it('are judged alike in every key', () => {
    const text = '{key: Bb}\n| Cm7 | F7 | Bbmaj7 | G7b9 |';
    const up = '{key: C}\n| Dm7 | G7 | Cmaj7 | A7b9 |';
    const tune = tuneOf(text);
    const take = played(tune, 0.4, 8);
    const raised = take.map((stroke) => ({ ...stroke, midi: stroke.midi + 2 }));
    const moved = {
      ...tuneOf(up),
      targets: tune.targets.map(({ change, midi }) => ({ change, midi: midi + 2 }))
    };
    const [own, other] = [judged(tune, take), judged(moved, raised)];
    expect(other.changes.map(({ verdict, target }) => [verdict, target?.met, target?.late])).toEqual(
      own.changes.map(({ verdict, target }) => [verdict, target?.met, target?.late])
    );
  });

  it('are judged alike whatever the latency, once it is known', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0, max: 0.4, noNaN: true }),
        fc.double({ min: 0, max: 1, noNaN: true }),
        (latency, skill) => {
          const take = played(BLUES!, skill, 3, 2);
          const late = take.map((stroke) => ({ ...stroke, at: stroke.at + latency }));
          expect(judged(BLUES!, late, START + latency).changes).toEqual(judged(BLUES!, take).changes);
        }
      ),
      { numRuns: 20 }
    );
  });

  it('tell each round of the form', () => {
    const { changes, figures } = judged(BLUES!, played(BLUES!, 1, 1, 3));
    expect(figures.rounds).toBe(3);
    expect(changes.length).toBe(3 * BLUES!.ground.analysis.changes.length);
    expect(figures.hits).toBe(1);
  });
});

describe('remarks', () => {
  const bars = (tune: Tune) => new Set(tune.ground.form.changes.map(({ bar }) => bar));

  it('are three at most, name a bar of the chart, and a drill that there is', () => {
    fc.assert(
      fc.property(
        fc.nat(TUNES.length - 1),
        fc.double({ min: 0, max: 1, noNaN: true }),
        fc.nat(99),
        (i, skill, seed) => {
          const tune = TUNES[i]!;
          const remarks = remarksOn(judged(tune, played(tune, skill, seed)), tune.ground);
          expect(remarks.length).toBeGreaterThan(0);
          expect(remarks.length).toBeLessThanOrEqual(3);
          for (const { bar, drill, text, change } of remarks) {
            expect(bars(tune)).toContain(bar);
            expect(text).toMatch(/\S/);
            expect(text).not.toMatch(/undefined|NaN|null/);
            expect(tune.ground.form.changes[change]).toBeDefined();
            if (!drill) continue;
            expect(DRILLS.map(({ id }) => id)).toContain(drill.drill);
            expect(drill.from).toBeLessThanOrEqual(drill.to);
            expect(tune.ground.form.changes[drill.to]).toBeDefined();
          }
        }
      ),
      { numRuns: 40 }
    );
  });

  it('begin with what went well', () => {
    for (const skill of [1, 0.5]) {
      const [first] = remarksOn(judged(BLUES!, played(BLUES!, skill)), BLUES!.ground);
      expect(first).toMatchObject({ kind: 'well' });
    }
  });

  it('name the change that is always late, by how much, and drill the pair', () => {
    const late = [0, 16].flatMap((at) => [
      note(at, 65),
      note(at + 4.6, 71),
      note(at + 8, 64),
      note(at + 12, 64)
    ]);
    const remarks = remarksOn(judgeNotes(late), CADENCE.ground);
    expect(remarks).toContainEqual({
      kind: 'mend',
      bar: 2,
      change: 1,
      text: 'Into bar 2, Dm7 to G7, you land 0.6 beats late, both times: play that change alone, slowly, with its approach note.',
      drill: { drill: 'approach', from: 0, to: 1 }
    });
  });

  it('spell what was landed on against its chord', () => {
    const remarks = remarksOn(
      judgeNotes([note(0, 65), note(4, 66), note(8, 64), note(12, 64)]),
      CADENCE.ground
    );
    expect(remarks.map(({ text }) => text)).toContain('In bar 2 you land on F♯; the third, B, would say G7.');
  });

  it('name a target that is a colour by its number', () => {
    const nine = [{ change: 1, midi: 69 }];
    const remarks = remarksOn(
      judgeNotes([note(0, 65), note(4, 66), note(8, 64), note(12, 64)], nine),
      CADENCE.ground
    );
    expect(remarks.map(({ text }) => text)).toContain('In bar 2 you land on F♯; the 9, A, would say G7.');
  });

  it('name the bar before which the line first stops and comes in late; a rest that is followed in time is a breath', () => {
    const breathing = judgeNotes([note(0, 65, 2), note(4, 71, 2), note(8, 64, 2), note(12, 64, 2)]);
    expect(breathing.stops).toEqual([1, 2, 3]);
    expect(remarksOn(breathing, CADENCE.ground).every(({ kind }) => kind === 'well')).toBe(true);
    const hesitating = judgeNotes([note(0, 65, 2), note(4.7, 71, 2), note(8.6, 64, 2), note(12.8, 64, 2)]);
    expect(remarksOn(hesitating, CADENCE.ground)).toContainEqual(
      expect.objectContaining({
        kind: 'mend',
        text: expect.stringMatching(/late/) as string
      })
    );
  });

  it('name the bend that stops short, by how much, and no bend that comes to its goal', () => {
    const bent = (cents: number) => {
      const notes = [note(4, 71, 3), note(8, 64, 3)].map((own) => ({
        ...own,
        curve: [],
        events: [{ kind: 'bend' as const, at: own.at + 0.05, cents }]
      }));
      const judgement = judgeTake(
        { notes, clock: { tempo: TEMPO, start: START }, targets: MEANT },
        CADENCE.ground
      );
      return remarksOn(judgement, CADENCE.ground)
        .map(({ text }) => text)
        .join(' ');
    };
    expect(bent(165)).toContain('In bar 2 your bend to B stops 35 cents short (1 other of 2 bends too)');
    for (const cents of [95, 188, 210]) expect(bent(cents)).not.toContain('bend');
  });

  it('name what was heard as the key does, and a strange note plainly', () => {
    const tune = tuneOf('{key: F#m}\n| F#m7 | D#m7b5 | C#7 | F#m7 |');
    const said = (notes: ReturnType<typeof note>[], targets: { change: number; midi: number }[]) =>
      remarksOn(judgeNotes(notes, targets, tune), tune.ground).map(({ text }) => text);
    const sus = [68, 73, 75, 68, 75, 68, 73, 75].map((midi, i) => note(i / 2, midi, 0.45));
    const rest = [75, 69, 77, 73, 69, 73].map((midi, i) => note(4 + 2 * i, midi, 1.8));
    expect(said([...sus, ...rest], []).join(' ')).toContain('one hears G♯sus4');
    // Over D♯m7♭5, whose third it would be by its letter.
    const strange = [
      note(0, 69, 3.8),
      note(4, 75, 1.8),
      note(6, 67, 1.8),
      note(8, 77, 3.8),
      note(12, 69, 3.8)
    ];
    expect(said(strange, []).join(' ')).toMatch(/In bar 2 G lies outside D♯m7♭5/);
  });

  it('say that a take without notes lies beside the chart', () => {
    expect(remarksOn(judgeNotes([]), CADENCE.ground)).toMatchObject([{ kind: 'whole', bar: 1 }]);
  });
});
