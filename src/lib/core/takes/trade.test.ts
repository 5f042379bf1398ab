import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { readSheet } from '../harmony/sheet';
import { beatsOf, noteOf, ticksOf, type LineNote } from '../line/model';
import type { BeatNote } from './align';
import { judged, played, START, TEMPO, tuneOf } from './testing';
import { judgeTake } from './judge/judge';
import { exchangesOf, ownNotes, sayExchange, turnsIn, type AnswerKind } from './trade';

const formOf = (bars: number) => readSheet(`{key: Db}\n${'| Dbmaj7 | Bbm7 '.repeat(bars / 2)}|`).form;
const BLUES = formOf(12);
/** A phrase of eight eighths in bar 1 of a turn: D♭ major. */
const phrase = (from: number, up = 0): LineNote[] =>
  [61, 65, 68, 72, 70, 68, 65, 63].map((midi, i) =>
    noteOf(ticksOf(from) + ticksOf(i / 2), ticksOf(0.5), midi + up)
  );
const asPlayed = (notes: readonly LineNote[]): BeatNote[] =>
  notes.map(({ start, length, midi }) => ({ at: beatsOf(start), beats: beatsOf(length), midi }));

describe('the turns of a trade', () => {
  it('go on from round to round: over three turns the player has in the second what Corvel had in the first', () => {
    const turns = turnsIn(BLUES, 4, 2);
    expect(turns.map(({ isOwn, round, bars }) => [isOwn, round, bars.from, bars.to])).toEqual([
      [false, 0, 1, 4],
      [true, 0, 5, 8],
      [false, 0, 9, 12],
      [true, 1, 1, 4],
      [false, 1, 5, 8],
      [true, 1, 9, 12]
    ]);
  });

  it('cover every beat once, in any form', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 20 }),
        fc.constantFrom(2 as const, 4 as const),
        fc.integer({ min: 1, max: 4 }),
        (half, size, rounds) => {
          const form = formOf(2 * half);
          const turns = turnsIn(form, size, rounds);
          expect(turns[0]!.from).toBe(0);
          expect(turns.at(-1)!.to).toBe(rounds * form.beats);
          turns.slice(1).forEach((turn, i) => {
            expect(turn.from).toBe(turns[i]!.to);
            expect(turn.isOwn).toBe(!turns[i]!.isOwn);
          });
        }
      ),
      { numRuns: 20 }
    );
  });
});

describe('what the player played', () => {
  const turns = turnsIn(BLUES, 4, 1);
  const own = (notes: readonly BeatNote[]) => ownNotes(notes, ({ at }) => at, turns, phrase(0));

  it('is what lies in their turns, with a pick-up before and an end on the one after', () => {
    const notes = [4, 15.5, 16, 24, 32, 33, 40].map((at) => ({ at, beats: 0.5, midi: 64 }));
    expect(own(notes).map(({ at }) => at)).toEqual([15.5, 16, 24, 32]);
  });

  it('is nothing that the microphone heard of Corvel', () => {
    const call = phrase(12);
    const heard = asPlayed(call).map((note) => ({ ...note, at: note.at + 0.03 }));
    const mine = { at: 15.6, beats: 0.4, midi: 50 };
    expect(ownNotes([...heard, mine], ({ at }) => at, turns, call)).toEqual([mine]);
  });
});

describe('an answer', () => {
  const turns = turnsIn(BLUES, 4, 1);
  const call = phrase(0);
  const changes = [
    { start: 16, verdict: 'clear' as const },
    { start: 24, verdict: 'partly' as const }
  ];
  const read = (answer: readonly LineNote[]) => exchangesOf(turns, asPlayed(answer), call, changes)[0]!;
  const rhythmOf = (notes: readonly LineNote[], midis: readonly number[]) =>
    notes.map((note, i) => ({ ...note, midi: midis[i % midis.length]! }));
  const cases: readonly (readonly [AnswerKind, readonly LineNote[]])[] = [
    ['open', []],
    ['given back', phrase(16, -5)],
    ['rhythm', rhythmOf(phrase(16), [72, 61, 70, 61, 72, 61, 63])],
    [
      'denser',
      Array.from({ length: 20 }, (_, i) => noteOf(ticksOf(20.3 + i * 0.3), ticksOf(0.3), 61 + (i % 3)))
    ],
    ['sparser', [noteOf(ticksOf(22.3), ticksOf(2), 68)]],
    ['own', Array.from({ length: 7 }, (_, i) => noteOf(ticksOf(21.25 + i), ticksOf(0.5), 61))]
  ];

  it.each(cases)('is “%s”', (kind, answer) => {
    expect(read(answer).kind).toBe(kind);
  });

  it('is told with where it begins, how long it waits, and what could be heard', () => {
    const exchange = read(phrase(16, 0));
    // The call ends on E♭, the answer begins on D♭.
    expect(exchange).toMatchObject({ begins: -2, waits: 0, heard: 0.75, called: 8, answered: 8 });
    expect(sayExchange(exchange)).toBe(
      'Bars 5–8: you gave its phrase back, rhythm and shape, beginning a step from where it had ended; most of the chords could be heard.'
    );
    expect(sayExchange(read([]))).toBe('Bars 5–8: you left the bars open.');
  });
});

describe('a take in which bars were traded', () => {
  const tune = tuneOf('{key: Gm}\n| Am7b5 | D7b9 | Gm6 | % | Cm7 | F7 | Bbmaj7 | Ebmaj7 |');
  const strokes = played(tune, 1);
  const clock = { tempo: TEMPO, start: START };
  const turns = turnsIn(tune.ground.form, 2, 1);
  const beat = ({ at }: { readonly at: number }) => ((at - START) * TEMPO) / 60;
  const own = ownNotes(strokes, beat, turns, []);

  it('counts the changes of the player’s turns alone', () => {
    const { changes, figures } = judgeTake(
      { notes: own, clock, targets: tune.targets, trade: 2 },
      tune.ground
    );
    expect(changes.filter(({ isLeftAlone }) => !isLeftAlone).map(({ change }) => change)).toEqual([
      2, 3, 6, 7
    ]);
    expect(figures.changes).toBe(4);
    expect(figures.hits).toBe(1);
    // Silence in Corvel's turn is no hesitation before the answer.
    expect(figures.silences).toBe(0);
    const whole = judged(tune, own);
    expect(whole.figures.silences).toBeGreaterThan(0);
  });
});
