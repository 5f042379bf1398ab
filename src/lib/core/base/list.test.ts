import { describe, expect, it } from 'vitest';
import { entryOf, firstOf, lastOf, nth, numberAt, sure } from './list';

describe('what has to be there', () => {
  it('is given, also where it is nothing by itself', () => {
    expect([nth([5, 0], 1), firstOf(['']), lastOf([true, false]), numberAt(new Float32Array(1), 0)]).toEqual([
      0,
      '',
      false,
      0
    ]);
    expect([entryOf(new Map([['a', 0]]), 'a'), sure(0, 'nought')]).toEqual([0, 0]);
    expect(nth([null], 0)).toBeNull();
  });

  it('is missed at once, by its place or name', () => {
    expect(() => nth([1], 1)).toThrow('no item 1 in a list of 1');
    expect(() => nth([1], -1)).toThrow(RangeError);
    expect(() => firstOf([])).toThrow('a list of 0');
    expect(() => lastOf([])).toThrow(RangeError);
    expect(() => numberAt([], 0)).toThrow('no number 0');
    expect(() => entryOf(new Map([['a', 1]]), 'b')).toThrow('no entry for b');
    expect(() => sure(null, 'the key')).toThrow('the key is missing');
  });
});
