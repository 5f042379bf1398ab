import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { noteOf, TICKS, type LineNote } from '../../line/model';
import { pieceOf } from '../testing';
import { readMidi } from './read';
import { writeMidiPiece } from './write';

const heard = ({ start, length, midi }: LineNote) => ({ start, length, midi });
const lineOf = (each: readonly { gap: number; length: number; midi: number }[]) => {
  let at = 0;
  return each.map(({ gap, length, midi }) => {
    const note = noteOf(at + gap, length, midi);
    at = note.start + length;
    return note;
  });
};
const line = fc
  .array(
    fc.record({
      gap: fc.constantFrom(0, 0, 77, 480),
      length: fc.constantFrom(133, 320, 480, 1440),
      midi: fc.integer({ min: 40, max: 84 })
    }),
    { minLength: 1, maxLength: 20 }
  )
  .map(lineOf);

describe('lines as MIDI', () => {
  it('come back with their times and pitches, lines and melody apart', () => {
    fc.assert(
      fc.property(line, line, (notes, melody) => {
        const back = readMidi(
          writeMidiPiece(
            pieceOf([
              { name: 'line: Våge', notes },
              { name: 'melody', notes: melody }
            ])
          )
        );
        expect(back.lines.map(({ name }) => name)).toEqual(['Våge']);
        expect(back.lines[0]!.notes.map(heard)).toEqual(notes.map(heard));
        expect(back.melody!.map(heard)).toEqual(melody.map(heard));
        expect(back.left).toEqual([]);
      }),
      { numRuns: 30 }
    );
  });

  it('keep chords, key, meters and tempo', () => {
    const { chart } = readMidi(writeMidiPiece(pieceOf([])));
    expect(chart).toContain('{key: Gm}\n{time: 4/4}\n{tempo: 104}');
    expect(chart).toContain('| Am7b5 | D7b9 . . Gm/Bb | N.C. | Ebmaj7 |');
    expect(chart).toContain('{time: 3/4}\n{start_of_grid}\n| F7sus4 | Bb6 |');
  });

  it('keep the beat of a meter in eighths', () => {
    const notes = [noteOf(0, TICKS, 60), noteOf(3 * TICKS, 3 * TICKS, 62)];
    const piece = pieceOf([{ name: 'line: A', notes }], '{time: 6/8}\n{tempo: 180}\n| Dm7 | G7 |\n');
    const back = readMidi(writeMidiPiece(piece));
    expect(back.lines[0]!.notes.map(heard)).toEqual(notes.map(heard));
    expect(back.chart).toContain('{time: 6/8}\n{tempo: 180}');
  });

  it('strike a tied note once', () => {
    const notes = [noteOf(0, TICKS, 60), { ...noteOf(TICKS, TICKS, 60), tie: true as const }];
    const back = readMidi(writeMidiPiece(pieceOf([{ name: 'line: A', notes }])));
    expect(back.lines[0]!.notes.map(heard)).toEqual([{ start: 0, length: 2 * TICKS, midi: 60 }]);
  });

  it('are told where they are chords', () => {
    const notes = [60, 64, 67].map((midi) => noteOf(0, TICKS, midi));
    const back = readMidi(writeMidiPiece(pieceOf([{ name: 'keys', notes }])));
    expect(back.melody).toBeNull();
    expect(back.left[0]!.why).toContain('chords of three and more notes');
  });

  it.each([
    ['no MIDI', Uint8Array.from([1, 2, 3, 4, 5])],
    ['a file cut off', writeMidiPiece(pieceOf([])).slice(0, 60)],
    ['nothing', new Uint8Array()]
  ])('%s is refused with a sentence', (_, bytes) => {
    expect(() => readMidi(bytes)).toThrow(/MIDI file/);
  });
});
