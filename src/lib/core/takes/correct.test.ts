import { describe, expect, it } from 'vitest';
import { addNote, deleteNote, joinNote, moveNote, splitNote } from './correct';
import { STEP_SECONDS, type HeardNote } from './model';

const note = (at: number, midi: number, cents = 0): HeardNote => ({
  at,
  seconds: 0.5,
  midi,
  level: 0.8,
  cents: 4,
  confidence: 0.6,
  curve: Array.from({ length: Math.round(0.5 / STEP_SECONDS) }, () => cents),
  events: []
});
const NOTES = [note(1, 60), note(1.5, 62), note(2, 64)];
const pitches = (notes: readonly HeardNote[]) =>
  notes.map(({ at, midi }) => [Math.round(100 * at) / 100, midi]);

describe('what was heard, corrected by hand', () => {
  it('moves a note past another, keeps the order, and its curve where the sound was', () => {
    const { notes, at } = moveNote(NOTES, 0, { semitones: 2, seconds: 0.75 });
    expect(pitches(notes)).toEqual([
      [1.5, 62],
      [1.75, 62],
      [2, 64]
    ]);
    expect(at).toBe(1);
    expect(notes[1]).toMatchObject({ confidence: 1, cents: 0 });
    expect(new Set(moveNote(NOTES, 0, { semitones: 2 }).notes[0]!.curve)).toEqual(new Set([-200]));
    expect(moveNote(NOTES, 0, { seconds: -STEP_SECONDS }).notes[0]!.curve[0]).toBeNull();
    expect(NOTES[0]!.confidence).toBe(0.6);
  });

  it('parts a note at a second, the other part at the pitch that sounds there', () => {
    const half = NOTES[0]!.curve.length / 2;
    const own = { ...NOTES[0]!, curve: NOTES[0]!.curve.map((_, i) => (i < half ? 0 : 210)) };
    const { notes, at } = splitNote([own, ...NOTES.slice(1)], 0, 1.25);
    expect(pitches(notes).slice(0, 3)).toEqual([
      [1, 60],
      [1.25, 62],
      [1.5, 62]
    ]);
    expect(at).toBe(1);
    expect(notes[0]!.seconds + notes[1]!.seconds).toBeCloseTo(0.5);
    expect(notes[1]!.curve.at(-1)).toBe(10);
    // At its very end there is nothing to part.
    expect(splitNote([note(1, 60)], 0, 9).notes[1]!.seconds).toBeCloseTo(0.03);
  });

  it('joins a note with the next, and parting it there again gives both back', () => {
    const joined = joinNote(NOTES, 0);
    expect(pitches(joined.notes)).toEqual([
      [1, 60],
      [2, 64]
    ]);
    expect(joined.notes[0]!.seconds).toBeCloseTo(1);
    expect(pitches(splitNote(joined.notes, 0, 1.5).notes)).toEqual(pitches(NOTES));
    expect(joinNote(NOTES, 2).notes).toBe(NOTES);
  });

  it('takes a note out and puts one in, at most until the next', () => {
    expect(deleteNote(NOTES, 1)).toEqual({ notes: [NOTES[0], NOTES[2]], at: 0 });
    expect(deleteNote([note(1, 60)], 0)).toEqual({ notes: [], at: null });
    const { notes, at } = addNote(NOTES, { at: 1.7, seconds: 2, midi: 300 });
    expect(at).toBe(2);
    expect(notes[2]).toMatchObject({ midi: 108, confidence: 1 });
    expect(notes[2]!.seconds).toBeCloseTo(0.3);
  });
});
