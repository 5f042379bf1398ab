import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { contextOf } from '../approaches/context';
import { modes } from '../approaches/modes';
import { excerptOf, playedAt, type Excerpt } from '../harmony/excerpt';
import { readSheet, type Sheet } from '../harmony/sheet';
import { subjectsOf, tonesOfAll } from '../moment/moment';
import { areasAt } from '../neck/position-map';
import { systemOf } from '../neck/systems/registry';
import { STANDARD } from '../neck/tuning';
import { FREE_PATH } from '../targets/options';
import { findTargets } from '../targets/path';
import { approachesOf } from './approach-notes';
import { DRILLS, drillOf } from './drills';
import type { DrillMaterial } from './drill';
import { beatsOf, endOf, ticksOf, type LineNote } from './model';
import { runInto, type RunSlot } from './run';
import { skeletonLine } from './skeleton';

const TUNE = '{key: Gm}\n| Gm6 | Am7b5 D7b9 | Gm6 | % | Cm7 | F7 | Bbmaj7 | D7alt |';

function material(sheet: Sheet, of: Excerpt, perBeat: number, round = 0): DrillMaterial {
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
    perBeat,
    round
  };
}

const whole = (sheet: Sheet) => excerptOf(sheet.form, sheet.analysis, { kind: 'form' })!;
const RUNS = ['up', 'down', 'alternate', 'travel', 'arpeggio-scale', 'arpeggios', 'fifth'];
const ARPEGGIOS = new Set(['arpeggio-scale', 'arpeggios']);

describe('runs', () => {
  /** No two neighbours further apart than an arpeggio goes. */
  const pitches = fc.uniqueArray(fc.integer({ min: 50, max: 62 }), { minLength: 4, maxLength: 12 });

  it('cost no more than any other run, as trying them all shows', () => {
    fc.assert(
      fc.property(
        fc.uniqueArray(fc.integer({ min: 50, max: 62 }), { minLength: 3, maxLength: 5 }),
        fc.nat({ max: 4 }),
        fc.integer({ min: 48, max: 64 }),
        fc.integer({ min: 1, max: 4 }),
        (midis, from, into, count) => {
          const tones = midis.sort((a, b) => a - b).map((midi) => ({ midi }));
          const landing = tones[from % tones.length]!;
          const slot: RunSlot<{ midi: number }> = { tones, way: 1, against: 0.05, leaps: false };
          const run = runInto(
            landing,
            Array.from({ length: count }, () => slot),
            into
          );
          expect(run).toHaveLength(count);
          // What every run would like best: to arrive by a step, on no tone twice. If any run can, the one found does.
          const all = (left: number): { midi: number }[][] =>
            left === 0 ? [[]] : tones.flatMap((tone) => all(left - 1).map((rest) => [tone, ...rest]));
          const isFine = (candidate: readonly { midi: number }[]) => {
            const path = [landing, ...candidate];
            const steps = path.slice(1).map(({ midi }, i) => Math.abs(midi - path[i]!.midi));
            const last = Math.abs(path.at(-1)!.midi - into);
            return steps.every((step) => step > 0 && step <= 7) && last >= 1 && last <= 2;
          };
          if (all(count).some(isFine))
            expect(isFine(run), `${midis.join(' ')} from ${landing.midi} into ${into}`).toBe(true);
        }
      ),
      { numRuns: 200 }
    );
  });

  it('go one way as far as they can, and turn at the edge', () => {
    fc.assert(
      fc.property(pitches, (midis) => {
        const tones = midis.sort((a, b) => a - b).map((midi) => ({ midi }));
        const slot: RunSlot<{ midi: number }> = { tones, way: 1, against: 0.05, leaps: true };
        const run = runInto(
          tones[0]!,
          Array.from({ length: tones.length }, () => slot),
          null
        );
        expect(run.map(({ midi }) => midi)).toEqual([...midis.slice(1), midis.at(-2)]);
      })
    );
  });
});

describe('drills', () => {
  const sheet = readSheet(TUNE);

  it.each(DRILLS.map(({ id }) => id))(
    '%s: no note past its chord, no gap in its runs, every landing on its target',
    (id) => {
      const drill = drillOf(id)!;
      for (const perBeat of [2, 3, 4]) {
        const of = whole(sheet);
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
          // What is sung first is played in the second half.
          const from = change.start + (id === 'sing' ? change.beats / 2 : 0);
          const landing = notes.find(({ start }) => start === ticksOf(from));
          expect(landing, `${id} ${at}`).toMatchObject({ midi: made.targets[at]!.midi, purpose: 'target' });
        }
      }
    }
  );

  const loops = fc
    .array(
      fc.constantFrom('Gm7', 'C7', 'Fmaj7', 'Am7b5 D7b9', 'Bbmaj7 Eb7', 'Dm7 G7 Em7 A7', 'E7alt', 'Ab6'),
      {
        minLength: 1,
        maxLength: 5
      }
    )
    .map((bars) => readSheet(`{key: F}\n| ${bars.join(' | ')} |`));

  it('leap no further than a fifth inside a run, strike no note twice, and step into the next target', () => {
    fc.assert(
      fc.property(
        loops,
        fc.constantFrom(...RUNS.filter((id) => id !== 'travel')),
        fc.constantFrom(2, 3, 4),
        fc.nat({ max: 3 }),
        (tune, id, perBeat, round) => {
          const of = whole(tune);
          const made = material(tune, of, perBeat, round);
          const notes = drillOf(id)!.play(made);
          for (const [at, change] of of.changes.entries()) {
            const run = notes.filter((note) => playedAt(of, beatsOf(note.start)) === at);
            const count = Math.round(change.beats * perBeat);
            const isFast = count <= 4;
            const says = `${id} ${perBeat} ${change.source.symbol} ${run.map(({ midi }) => midi).join(' ')}`;
            expect(endOf(run.at(-1)!), says).toBe(ticksOf(change.start + change.beats));
            run.slice(1).forEach(({ midi }, i) => {
              const leap = Math.abs(midi - run[i]!.midi);
              expect(leap, says).toBeGreaterThan(0);
              expect(leap, says).toBeLessThanOrEqual(isFast || ARPEGGIOS.has(id) ? 12 : 7);
            });
            const next = made.targets[(at + 1) % of.changes.length]!.midi;
            const into = Math.abs(next - run.at(-1)!.midi);
            const canStep = made.areas[at]!.cells.some(({ midi }) => [1, 2].includes(Math.abs(midi - next)));
            // On a fast change chord tones come first; of three notes the last one leads on.
            if (canStep && (count === 3 || !isFast)) expect([1, 2], `${says} into ${next}`).toContain(into);
          }
        }
      ),
      { numRuns: 150 }
    );
  });

  it('say the chord on fast changes: the target and chord tones, of three notes a step into what comes', () => {
    const tune = readSheet('{key: F}\n| Dm7 G7 Em7 A7 | Am7b5 D7b9 Gm7 C7 | Fmaj7 Bbmaj7 Eb7 Ab6 |');
    const of = whole(tune);
    for (const id of RUNS)
      for (const perBeat of [1, 2, 3, 4]) {
        const made = material(tune, of, perBeat);
        const notes = drillOf(id)!.play(made);
        of.changes.forEach((change, at) => {
          const run = notes.filter((note) => playedAt(of, beatsOf(note.start)) === at);
          const chord = change.source.chord!.pitchClasses;
          const said = `${id} ${perBeat} ${change.source.symbol}: ${run.map(({ midi }) => midi).join(' ')}`;
          expect(run[0]!.midi, said).toBe(made.targets[at]!.midi);
          const own = perBeat === 3 ? run.slice(0, 2) : run;
          for (const { midi } of own) expect(chord, said).toContain(midi % 12);
          expect(run.length, said).toBe(perBeat);
        });
      }
  });

  it('differ from one another on a beat a chord', () => {
    const tune = readSheet('{key: F}\n| Dm7 G7 Em7 A7 | Am7b5 D7b9 Gm7 C7 |');
    const of = whole(tune);
    const played = RUNS.filter((id) => !['travel', 'arpeggio-scale'].includes(id)).map((id) =>
      drillOf(id)!
        .play(material(tune, of, 2))
        .map(({ midi }) => midi)
        .join(' ')
    );
    expect(new Set(played).size).toBe(played.length);
  });

  const runOver = (notes: readonly LineNote[], of: Excerpt, at: number) =>
    notes.filter((note) => playedAt(of, beatsOf(note.start)) === at).map(({ midi }) => midi);
  const rises = (midis: readonly number[]) =>
    midis.slice(1).filter((midi, i) => midi > midis[i]!).length -
    midis.slice(1).filter((midi, i) => midi < midis[i]!).length;

  it('go up in ascending ones and down in descending ones, from the target, as long as the shape goes on', () => {
    const of = whole(sheet);
    const made = material(sheet, of, 2);
    for (const [id, way] of [
      ['up', 1],
      ['down', -1]
    ] as const) {
      const notes = drillOf(id)!.play(made);
      for (const [at, { beats }] of of.changes.entries()) {
        const run = runOver(notes, of, at);
        const cells = made.areas[at]!.cells.map(({ midi }) => midi);
        const ahead = cells.filter((midi) => (midi - run[0]!) * way > 0).length;
        const first = run.slice(0, Math.min(3, ahead + 1));
        if (beats >= 4)
          expect(way * rises(first) + 0, `${id} ${at}: ${run.join(' ')}`).toBe(first.length - 1);
      }
    }
  });

  it('climb an arpeggio in the first half and come down the scale in the second', () => {
    const of = whole(readSheet('{key: Bb}\n| Cm7 | F7 | Bbmaj7 | Gm7 |'));
    const tune = readSheet('{key: Bb}\n| Cm7 | F7 | Bbmaj7 | Gm7 |');
    const made = material(tune, of, 4);
    const notes = drillOf('arpeggio-scale')!.play(made);
    for (const [at, change] of of.changes.entries()) {
      const run = runOver(notes, of, at);
      const top = run.indexOf(Math.max(...run));
      const chord = change.source.chord!.pitchClasses;
      for (const midi of run.slice(1, top)) expect(chord).toContain(midi % 12);
      expect(top).toBeGreaterThan(0);
      expect(rises(run.slice(Math.max(top, 8)))).toBeLessThan(0);
    }
  });

  it('turn from change to change and from round to round', () => {
    const of = whole(readSheet('{key: Bb}\n| Cm7 | F7 | Bbmaj7 | Gm7 |'));
    const tune = readSheet('{key: Bb}\n| Cm7 | F7 | Bbmaj7 | Gm7 |');
    const begins = (round: number) => {
      const notes = drillOf('alternate')!.play(material(tune, of, 2, round));
      return of.changes.map((_, at) => Math.sign(rises(runOver(notes, of, at).slice(0, 3))));
    };
    expect(begins(0)).toEqual([1, -1, 1, -1]);
    expect(begins(1)).toEqual([-1, 1, -1, 1]);
    expect(begins(2)).toEqual(begins(0));
  });

  it('carry a motif in its forms, and answer a call by its head, shorter and with another end', () => {
    const text = '{key: Db}\n| Ebm7 | Ab7 | Dbmaj7 | Bbm7 | Ebm7 | Ab7 | Dbmaj7 | % |';
    const tune = readSheet(text);
    const of = whole(tune);
    const over = (id: string, round = 0) => {
      const notes = drillOf(id)!.play(material(tune, of, 2, round));
      return of.changes.map(({ start, beats }) =>
        notes
          .filter((note) => note.start >= ticksOf(start) && note.start < ticksOf(start + beats))
          .map((note) => ({ ...note, start: note.start - ticksOf(start) }))
      );
    };
    const times = (own: readonly LineNote[]) => own.map(({ start }) => start / ticksOf(1));
    const signs = (own: readonly LineNote[]) =>
      own.slice(1).map(({ midi }, i) => Math.sign(midi - own[i]!.midi));

    const [first, again, other, turned, head, quick] = over('motif');
    expect(times(again!)).toEqual(times(first!));
    expect(times(other!)).toEqual(times(first!));
    expect(times(turned!)).toEqual(times(first!));
    expect(times(head!)).toEqual(times(first!).slice(0, head!.length));
    expect(head!.length).toBeLessThan(first!.length);
    expect(times(quick!)).toEqual(times(first!).map((at) => at / 2));
    expect(signs(again!).every((sign) => sign !== 0)).toBe(true);
    expect(over('motif', 1).map(times)).not.toEqual(over('motif').map(times));

    const calls = over('answer');
    for (let i = 0; i + 1 < calls.length; i += 2) {
      const [call, answer] = [calls[i]!, calls[i + 1]!];
      expect(answer.length).toBeLessThan(call.length);
      expect(times(answer)).toEqual(times(call).slice(0, answer.length));
      // Air after both.
      for (const own of [call, answer]) expect(endOf(own.at(-1)!)).toBeLessThanOrEqual(ticksOf(3));
      const chord = of.changes[i + 1]!.source.chord!.pitchClasses;
      expect(chord).toContain(answer.at(-1)!.midi % 12);
    }
    // In three there is a beat of silence as well.
    const waltz = readSheet('{key: Db}\n{time: 3/4}\n| Dbmaj7 | Bbm7 | Ebm7 | Ab7 |');
    const bars = whole(waltz);
    for (const round of [0, 1, 2, 3]) {
      const notes = drillOf('answer')!.play(material(waltz, bars, 2, round));
      for (const { start, beats } of bars.changes) {
        const inBar = notes.filter(
          (note) => note.start >= ticksOf(start) && note.start < ticksOf(start + beats)
        );
        expect(inBar.length).toBeGreaterThan(1);
        expect(endOf(inBar.at(-1)!)).toBeLessThanOrEqual(ticksOf(start + beats - 1));
      }
    }
    for (const id of ['motif', 'answer'])
      for (const own of over(id))
        for (let i = 1; i < own.length; i++)
          expect(Math.abs(own[i]!.midi - own[i - 1]!.midi)).toBeLessThanOrEqual(12);
  });
});
