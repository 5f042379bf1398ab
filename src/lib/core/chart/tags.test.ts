import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { tagged, tagsOf, untagged } from './tags';

const CHART = '{title: Tagged}\n{key: Ab}\n| Abmaj7 | Db7 |';

describe('tags of a chart', () => {
  it('are read in their order, each once, whatever the case and the spelling of the line', () => {
    expect(tagsOf(`{tags: opener, Latin ,latin, ,slow  one}\n${CHART}`)).toEqual([
      'opener',
      'Latin',
      'slow one'
    ]);
    expect(tagsOf(`{Meta: tags a, b}\n${CHART}`)).toEqual(['a', 'b']);
    expect(tagsOf(CHART)).toEqual([]);
  });

  it('are put in and taken away again, which leaves the text as it was', () => {
    const once = tagged(CHART, 'opener');
    expect(tagsOf(once)).toEqual(['opener']);
    expect(tagged(once, 'OPENER')).toBe(once);
    expect(tagsOf(tagged(once, ' in  three, {or} four '))).toEqual(['opener', 'in three or four']);
    expect(untagged(once, 'Opener')).toBe(CHART);
    expect(untagged(CHART, 'opener')).toBe(CHART);
    expect(tagged(CHART, ' ,{ ')).toBe(CHART);
  });

  it('are what was put in, whatever that is', () => {
    fc.assert(
      fc.property(fc.string({ maxLength: 60 }), (text) => {
        const once = tagged(CHART, text);
        expect(tagsOf(once).length).toBeLessThanOrEqual(1);
        expect(untagged(once, text)).toBe(CHART);
      }),
      { numRuns: 300 }
    );
  });
});
