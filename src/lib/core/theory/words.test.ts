/** Numbers and bars in words. */
import { expect, it } from 'vitest';
import { barRanges, counted, numberWord, ordinal } from './words';

it('bars are told by runs, counts and places as one says them', () => {
  expect(barRanges([5])).toBe('bar 5');
  expect(barRanges([5, 6])).toBe('bars 5 and 6');
  expect(barRanges([5, 9, 10, 11, 12, 15])).toBe('bars 5, 9 to 12 and 15');
  expect([counted(1, 'change'), counted(0, 'change'), counted(2, 'key to do', 'keys to do')]).toEqual([
    '1 change',
    '0 changes',
    '2 keys to do'
  ]);
  expect([1, 2, 3, 4, 11, 20].map(ordinal)).toEqual(['1st', '2nd', '3rd', '4th', '11th', '20th']);
  expect([numberWord(2), numberWord(12), numberWord(13)]).toEqual(['two', 'twelve', '13']);
});
