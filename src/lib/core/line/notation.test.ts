import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { endOf, noteOf, TICKS, type LineNote } from './model';
import { quarterOf, writtenBars, type WrittenBar } from './notation';

const FOUR = { beats: 4, unit: 4 } as const;
const barsOf = (count: number, meter: { beats: number; unit: number } = FOUR) =>
  Array.from({ length: count }, (_, i) => ({
    number: i + 1,
    section: '',
    start: i * meter.beats,
    beats: meter.beats,
    meter
  }));
/** Notes one after another from lengths in beats; a negative one is silence. */
function notesOf(beats: readonly number[]): LineNote[] {
  let at = 0;
  return beats.flatMap((length) => {
    const start = at;
    at += Math.round(Math.abs(length) * TICKS);
    return length > 0 ? [noteOf(start, at - start, 60)] : [];
  });
}
/** "4. 8~ 16(3)": values, dots, what is tied to what was before, tuplets; rests with an r. */
const words = ({ pieces, tuplets }: WrittenBar) =>
  pieces
    .map(
      ({ value, dots, notes, isTied, tuplet }) =>
        `${isTied ? '~' : ''}${notes.length ? '' : 'r'}${value}${'.'.repeat(dots)}${tuplet === null ? '' : `(${tuplets[tuplet]!.notes})`}`
    )
    .join(' ');
const written = (beats: readonly number[], meter = FOUR as { beats: number; unit: number }) =>
  writtenBars(notesOf(beats), barsOf(1, meter), meter).map(words).join(' | ');

describe('a line written down', () => {
  const CASES: [string, readonly number[], string, { beats: number; unit: number }?][] = [
    ['eighths', [0.5, 0.5, 0.5, 0.5, 0.5, 0.5, 0.5, 0.5], '8 8 8 8 8 8 8 8'],
    ['a whole note', [4], '1'],
    ['a dotted half from one', [3, 1], '2. 4'],
    ['a half on two', [1, 2, 1], '4 2 4'],
    ['a dotted quarter and what follows', [1.5, 0.5, 2], '4. 8 2'],
    ['a quarter off the beat', [0.5, 1, 0.5, 2], '8 4 8 2'],
    ['a push over the middle of the bar is tied', [1.5, 1, 1.5], '4. 8 ~8 4.'],
    ['silence shows every beat', [-0.5, 0.5, -1.5, 0.5, 1], 'r8 8 r4 r8 8 4'],
    ['a bar of silence', [-4], 'r1'],
    ['triplets in one beat only', [1 / 3, 1 / 3, 1 / 3, 1, 2], '8(3) 8(3) 8(3) 4 2'],
    ['a long and a short of a triplet', [2 / 3, 1 / 3, 1, 2], '4(3) 8(3) 4 2'],
    ['triplets of quarters', [2 / 3, 2 / 3, 2 / 3, 2], '4(3) 4(3) 4(3) 2'],
    ['sixteenths and a dotted eighth', [0.75, 0.25, 0.25, 0.5, 0.25, 2], '8. 16 16 8 16 2'],
    ['a triplet in half a beat', [0.5, 1 / 6, 1 / 6, 1 / 6, 3], '8 16(3) 16(3) 16(3) 2.'],
    ['five in a beat', [0.2, 0.2, 0.2, 0.2, 0.2, 3], '16(5) 16(5) 16(5) 16(5) 16(5) 2.'],
    ['six eighths go by three', [1.5, 0.5, 1, 3], '8. 16 8 4.', { beats: 6, unit: 8 }],
    ['a whole bar of six eighths', [6], '2.', { beats: 6, unit: 8 }],
    ['five eighths end on three', [2, 3], '4 4.', { beats: 5, unit: 8 }],
    ['a waltz', [1.5, 0.5, 1], '4. 8 4', { beats: 3, unit: 4 }],
    ['halves are the beat', [1, 0.5, 0.5], '2 4 4', { beats: 2, unit: 2 }]
  ];
  it.each(CASES)('%s', (_, beats, expected, meter = FOUR) => {
    expect(written(beats, meter)).toBe(expected);
  });

  it('ties a note over the bar, and begins new bars where it runs on', () => {
    const bars = writtenBars(notesOf([-3.5, 1.5]), barsOf(1), FOUR);
    expect(bars.map(words)).toEqual(['r2 r4 r8 8', '~4 r4 r2']);
  });

  it('writes a double stop as one, and a tied note as tied', () => {
    const [low, high] = [noteOf(0, TICKS, 60), noteOf(0, TICKS, 64)];
    const tied = { ...noteOf(TICKS, TICKS, 64), tie: true as const };
    const [bar] = writtenBars([low, high, tied], barsOf(1), FOUR);
    expect(words(bar!)).toBe('4 ~4 r2');
    expect(bar!.pieces[0]!.notes).toEqual([0, 1]);
  });

  const meters = fc.constantFrom(
    { beats: 4, unit: 4 },
    { beats: 3, unit: 4 },
    { beats: 7, unit: 8 },
    { beats: 12, unit: 8 },
    { beats: 2, unit: 2 }
  );
  const lengths = fc.array(
    fc.record({
      ticks: fc.constantFrom(240, 320, 480, 640, 960, 1440, 192, 77, 1920),
      isSilent: fc.boolean()
    }),
    { minLength: 1, maxLength: 24 }
  );

  it('fills every bar exactly and gives every note back as it was, whatever its time', () => {
    fc.assert(
      fc.property(meters, lengths, (meter, each) => {
        const notes = notesOf(each.map(({ ticks, isSilent }) => (isSilent ? -ticks : ticks) / TICKS));
        const bars = writtenBars(notes, barsOf(2, meter), meter);
        const back = new Map<number, { start: number; end: number }>();
        for (const bar of bars) {
          let at = bar.start;
          for (const piece of bar.pieces) {
            expect(piece.start).toBe(at);
            at += piece.length;
            for (const index of piece.notes) {
              back.set(index, { start: back.get(index)?.start ?? piece.start, end: at });
            }
          }
          expect(at).toBe(bar.start + bar.length);
        }
        expect([...back.values()]).toEqual(notes.map((note) => ({ start: note.start, end: endOf(note) })));
      }),
      { numRuns: 60 }
    );
  });

  it('says the time that a piece has by its value, dots and tuplet, on every usual grid', () => {
    const usual = fc.array(fc.constantFrom(240, 480, 720, 960, 1440, 1920), { minLength: 1, maxLength: 20 });
    fc.assert(
      fc.property(meters, usual, (meter, each) => {
        const scale = 4 / meter.unit;
        const notes = notesOf(each.map((ticks) => ticks / TICKS / scale));
        for (const { pieces, tuplets } of writtenBars(notes, barsOf(2, meter), meter)) {
          for (const { value, dots, tuplet, length, notes: own } of pieces) {
            if (own.length === 0 && length === meter.beats * TICKS) continue;
            const { notes: many, inTimeOf } = tuplet === null ? { notes: 1, inTimeOf: 1 } : tuplets[tuplet]!;
            const says = ((quarterOf(meter) * 4) / value) * (dots ? 1.5 : 1) * (inTimeOf / many);
            expect(says).toBe(length);
          }
        }
      }),
      { numRuns: 60 }
    );
  });
});
