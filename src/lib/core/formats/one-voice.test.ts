import { describe, expect, it } from 'vitest';
import { noteOf } from '../line/model';
import { oneVoice } from './one-voice';

describe('one voice of what a file has many of', () => {
  const walk = Array.from({ length: 8 }, (_, i) => noteOf(i * 480, 480, 60 + i));

  it('ends a note where the next begins, and says so', () => {
    const { notes, left } = oneVoice(
      'Horn',
      walk.map((note, i) => (i === 2 ? { ...note, length: 700 } : note))
    );
    expect(notes).toEqual(walk);
    expect(left).toEqual([
      { text: 'Horn', why: 'notes that run into the next in 1 place were ended where it begins' }
    ]);
  });

  it('takes the two highest of three, and says so', () => {
    const third = [noteOf(0, 480, 48), noteOf(0, 480, 52)];
    const { notes, left } = oneVoice('Horn', [...third, ...walk]);
    expect(notes!.slice(0, 2).map(({ midi }) => midi)).toEqual([52, 60]);
    expect(left[0]!.why).toContain('the two highest were taken');
  });

  it('leaves out what is chords, or several voices', () => {
    const chords = [0, 480].flatMap((start) => [48, 52, 55].map((midi) => noteOf(start, 480, midi)));
    expect(oneVoice('Keys', chords)).toMatchObject({ notes: null, left: [{ text: 'Keys' }] });
    const held = walk.map((note) => ({ ...note, length: 1000 }));
    expect(oneVoice('Choir', held).left[0]!.why).toContain('several voices');
  });
});
