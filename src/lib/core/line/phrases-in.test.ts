import { describe, expect, it } from 'vitest';
import { readSheet } from '../harmony/sheet';
import { noteOf, TICKS, type LineNote } from './model';
import { phraseBars, phrasesIn } from './phrases-in';

const bars = (text: string) => readSheet(text).form.bars;
const FOUR = bars('{key: Ab}\n| Ab7 | Db7 | Ab7 | % | Db7 | % | Ab7 | F7 |');
/** Notes as "beat:midi:beats", beats from 0 at the first bar. */
const line = (words: string): LineNote[] =>
  words
    .split(' ')
    .map((word) => word.split(':').map(Number))
    .map(([at, midi, beats = 0.5]) => noteOf(at! * TICKS, beats * TICKS, midi!));
const names = (words: string, on = FOUR) => phrasesIn(line(words), on).map(({ name }) => name);

describe('phrases of a line', () => {
  it('are parted by a beat of silence, and by no less', () => {
    expect(names('0:60 0.5:62 1:63 2:65')).toEqual(['A']);
    expect(names('0:60 0.5:62 1:63 2.5:65')).toEqual(['A', 'B']);
    expect(phrasesIn([], FOUR)).toEqual([]);
  });

  it('are parted by two eighths where three make a beat', () => {
    const slow = bars('{time: 12/8}\n| C7 | F7 |');
    expect(names('0:60:1 1:62:1 4:64:1', slow)).toEqual(['A', 'B']);
    expect(names('0:60:1 1:62:1 3:64:1', slow)).toEqual(['A']);
  });

  it('belong to the bar that a pickup leads into', () => {
    const [first, second] = phrasesIn(line('-1:60 -0.5:62 0:64:2 7:65 7.5:67 8:68 9:70'), FOUR);
    expect(first).toMatchObject({ first: 0, bars: 1, start: 'pickup', from: -TICKS });
    expect(second).toMatchObject({ first: 2, bars: 1, start: 'pickup' });
    // Three beats before a bar line is no pickup.
    const [long] = phrasesIn(line('1:60:1 2:62:1 3:64:1 4:65:1'), FOUR);
    expect(long).toMatchObject({ first: 0, bars: 2, start: 'after' });
    expect(phrasesIn(line('4:60:1'), FOUR)[0]).toMatchObject({ first: 1, start: 'one' });
  });

  it('are looped by their bars, and together where they share one', () => {
    expect(phraseBars(line('-1:60 -0.5:62 0:64:2 7:65 7.5:67 8:68 9:70'), FOUR)).toEqual([
      { from: 1, to: 1 },
      { from: 3, to: 3 }
    ]);
    expect(phraseBars(line('0:60 0.5:62 2.5:63 3:64 8:65 8.5:67'), FOUR)).toEqual([
      { from: 1, to: 1 },
      { from: 3, to: 3 }
    ]);
  });

  it('have the letter of what they take up, and a prime where they differ', () => {
    const riff = '0:60 0.5:63 1:65 1.5:67';
    const at = (by: number, change: (midi: number, n: number) => number = (midi) => midi) =>
      riff
        .split(' ')
        .map((word) => word.split(':').map(Number))
        .map(([beat, midi], n) => `${beat! + by}:${change(midi!, n)}`)
        .join(' ');
    expect(phrasesIn(line(`${riff} ${at(8)}`), FOUR)[1]).toMatchObject({
      name: 'A',
      like: { of: 0, how: 'literal' }
    });
    expect(phrasesIn(line(`${riff} ${at(8, (midi) => midi + 2)}`), FOUR)[1]).toMatchObject({
      name: 'A′',
      like: { of: 0, how: 'sequence' }
    });
    expect(phrasesIn(line(`${riff} ${at(8, (_, n) => 70 - n)}`), FOUR)[1]).toMatchObject({
      name: 'A′',
      like: { of: 0, how: 'same rhythm' }
    });
    expect(phrasesIn(line(`${riff} 8:60 8.5:63 9:65 9.25:70 9.75:72`), FOUR)[1]).toMatchObject({
      like: { of: 0, how: 'varied' }
    });
    // Half of it stays where it was.
    expect(phrasesIn(line(`${riff} 8:59 8.5:63 9:65 9.5:68`), FOUR)[1]).toMatchObject({
      like: { of: 0, how: 'same rhythm' }
    });
    expect(names(`${riff} 8:72:2 ${at(16)} 24:70:2`)).toEqual(['A', 'B', 'A', 'C']);
  });

  it('never runs out of letters', () => {
    const long = bars(`| ${Array.from({ length: 60 }, () => 'C').join(' | ')} |`);
    const words = Array.from(
      { length: 60 },
      (_, i) => `${4 * i}:60 ${4 * i + (i + 1) / 80}:${61 + (i % 20)}:0.03`
    );
    const all = names(words.join(' '), long);
    expect(new Set(all).size).toBe(60);
    expect(all.slice(25, 28)).toEqual(['Z', 'AA', 'AB']);
  });
});
