import { describe, expect, it } from 'vitest';
import { asciiAccidentals, prettyDegree, prettyNote, prettyProse, prettySymbol } from './typeset';
import { counted, listed, numberWord, ordinal } from './words';

describe('accidentals', () => {
  it.each([
    ['Bbm7b5', 'B♭m7♭5'],
    ['F#7#9', 'F♯7♯9'],
    ['C7/Eb', 'C7/E♭'],
    ['Bbbmaj7', 'B♭♭maj7'],
    ['Absus4', 'A♭sus4'],
    ['Ddim7', 'Ddim7'],
    ['Bb13b9', 'B♭13♭9']
  ])('%s is read as %s', (symbol, shown) => expect(prettySymbol(symbol)).toBe(shown));

  it('of notes and degrees, and back to what is typed', () => {
    expect(['Bb', 'F##', 'Ebb', 'B'].map(prettyNote)).toEqual(['B♭', 'F♯♯', 'E♭♭', 'B']);
    expect(['b7', '#11', 'bb7', '5'].map(prettyDegree)).toEqual(['♭7', '♯11', '♭♭7', '5']);
    expect(['B♭', 'F𝄪', 'E𝄫', 'C♯'].map(asciiAccidentals)).toEqual(['Bb', 'F##', 'Ebb', 'C#']);
  });

  it('in a sentence touch names only', () => {
    expect(prettyProse('Hold Abm7b5 over both; the blues of Bb stays.')).toBe(
      'Hold A♭m7♭5 over both; the blues of B♭ stays.'
    );
  });
});

describe('words', () => {
  it('join lists and count', () => {
    expect([[], ['a'], ['a', 'b'], ['a', 'b', 'c']].map((list) => listed(list))).toEqual([
      '',
      'a',
      'a and b',
      'a, b and c'
    ]);
    expect(listed(['2', '3'], 'or')).toBe('2 or 3');
    expect([counted(1, 'change'), counted(0, 'shift'), numberWord(7), numberWord(13)]).toEqual([
      '1 change',
      '0 shifts',
      'seven',
      '13'
    ]);
    expect([1, 2, 3, 4, 7, 11].map(ordinal)).toEqual(['1st', '2nd', '3rd', '4th', '7th', '11th']);
  });
});
