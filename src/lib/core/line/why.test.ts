import { describe, expect, it } from 'vitest';
import { readSheet } from '../harmony/sheet';
import { noteOf, TICKS, type LineNote } from './model';
import { phrasesIn } from './phrases-in';
import { readLine } from './read';
import { whyNote } from './why';

const sheet = readSheet('{key: Eb}\n| Fm7 | Bb7 | Ebmaj7 | N.C. |');
const { form, analysis, head } = sheet;

/** Notes as "beat:midi", half a beat long, with more about some of them. */
function why(words: string, index: number, more: Readonly<Record<number, Partial<LineNote>>> = {}): string {
  const notes = words.split(' ').map((word, i) => {
    const [at, midi, beats = 0.5] = word.split(':').map(Number);
    return { ...noteOf(at! * TICKS, beats * TICKS, midi!), ...more[i] };
  });
  const ground = { form, analysis, chosen: analysis.changes.map(() => null) };
  const reading = readLine({ meter: head.meter, notes }, ground);
  return whyNote(index, {
    notes,
    reading,
    changes: analysis.changes,
    phrases: phrasesIn(notes, form.bars)
  }).join(' ');
}

describe('why a note is there', () => {
  it('says what a chord tone tells', () => {
    expect(why('0:68 0.5:72', 0)).toContain('is the ♭3 of Fm7: the tone that says most: major or minor.');
    expect(why('0:72 0.5:68', 0)).toContain('is the 5 of Fm7: steady, and says least of the chord.');
    expect(why('4:68 4.5:70', 0)).toContain(
      'is the ♭7 of B♭7: with the 3 it says what kind of chord this is.'
    );
  });

  it('says where a note leads, and by how much', () => {
    // E leads by a semitone into the F of Fm7 on beat 2.
    expect(why('0:68 0.5:64 1:65', 1)).toMatch(/it leads by a semitone into F, the 1 of Fm7/);
    // G leans on F at the change to Fm7.
    expect(why('0:67 0.5:65 1:68', 0)).toMatch(/leans on F, the 1 of Fm7/);
    expect(why('0:65 0.5:67 1:68', 1)).toMatch(/passes by step|leads by a semitone into A♭/);
  });

  it('says when it comes', () => {
    expect(why('3:68 3.5:69 4:70:1', 2)).toContain('It lands on the change to B♭7, from a semitone below.');
    expect(why('3:65 3.5:62:1', 1)).toContain('It comes ahead of the change to B♭7, by a leap.');
    expect(why('3:65 4.5:62:1', 1)).toContain('It comes behind the change to B♭7, out of silence.');
  });

  it('says what it does in its phrase', () => {
    expect(why('-0.5:67 0:68 0.5:72', 0)).toContain('Phrase A begins on it, before its bar: a pickup.');
    expect(why('0:68 0.5:72 1:70 4:74', 2)).toContain(
      'Phrase A ends on it, and 2.5 beats of silence follow.'
    );
    expect(why('0:68 0.5:72', 1)).toContain('The line ends on it.');
    expect(why('0:68 0.5:75 1:72', 1)).toContain('The top of phrase A.');
    const twice = '0:68 0.5:72 1:75 1.5:72 8:67 8.5:70 9:74 9.5:70';
    expect(why(twice, 5)).toMatch(/Phrase A′ .*bar 1/);
  });

  it('says how it is played, and is silent where no chord sounds', () => {
    expect(why('0:68 0.5:72 1:70', 1, { 1: { bend: { from: 70 } } })).toContain(
      'It is bent up by a whole tone.'
    );
    expect(why('0:68 0.5:72 1:70 1.5:68', 2, { 2: { slur: true } })).toContain('It is pulled off.');
    expect(why('12:68', 0)).toBe('No chord sounds here, so nothing is asked of it.');
    expect(why('0:68', 5)).toBe('');
  });

  it('says three things at most', () => {
    const all = ['0:68 0.5:72 1:70 4:74', '-0.5:67 0:68 0.5:72', '3:68 3.5:69 4:70:1'];
    for (const words of all)
      for (let i = 0; i < 3; i++)
        expect(why(words, i, { [i]: { vibrato: true } }).split(/\. (?=[A-Z])/).length).toBeLessThanOrEqual(3);
  });
});
