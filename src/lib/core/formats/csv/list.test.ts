import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { readSheet } from '../../harmony/sheet';
import { isChartList, readChartList } from './list';

const TABLE = `Title,Key,BPM,Tags,Chords
Slow Ebb,Gbm,72,"quiet, late","| Gbm7 | Cb7 | Emaj7 | % |"
Spring Tide,F,,,F | Dm7 | Gm7 | C7
,,,,
No Chords,C,,,just words here
`;

describe('a table of charts', () => {
  it('gives a chart for each row, with what its columns say', () => {
    const charts = readChartList(TABLE);
    expect(charts.map(({ row, title }) => `${row} ${title}`)).toEqual([
      '2 Slow Ebb',
      '3 Spring Tide',
      '5 No Chords'
    ]);
    const { head, form, problems } = readSheet(charts[0]!.chart!);
    expect(head).toMatchObject({ title: 'Slow Ebb', key: 'Gbm', tempo: 72 });
    expect(charts[0]!.chart).toContain('{tags: quiet, late}');
    expect(form.changes.map(({ symbol }) => symbol)).toEqual(['Gbm7', 'Cb7', 'Emaj7', 'Emaj7']);
    expect(problems).toEqual([]);
    expect(readSheet(charts[1]!.chart!).form.bars).toHaveLength(4);
    expect(charts[2]!.chart).toBeNull();
  });

  it.each([
    ['title;chords\nOne;| C | F |', true],
    ['name\tprogression\nOne\t| C | F |', true],
    ['\ufeffTUNE,CHANGES\nOne,| C |', true],
    ['part,string,fret,midi,at,beats,chord\n', false],
    ['chords\n| C |', false],
    ['| C | F |', false],
    ['', false]
  ])('is told by its head: %j %s', (text, isOne) => {
    expect(isChartList(text)).toBe(isOne);
    if (isOne) expect(readChartList(text)).toHaveLength(1);
    else expect(() => readChartList(text)).toThrow('a column title and a column chords');
  });

  it('lets chords speak for themselves where they do', () => {
    const [one] = readChartList('title,key,chords\nOutside,C,"{title: Inside}\n{key: Ab}\n| Abmaj7 | Db7 |"');
    expect(readSheet(one!.chart!).head).toMatchObject({ title: 'Inside', key: 'Ab' });
  });

  it('reads whatever is in its cells, or refuses it with a sentence', () => {
    fc.assert(
      fc.property(fc.array(fc.tuple(fc.string(), fc.string()), { maxLength: 8 }), (cells) => {
        const quoted = (text: string) => `"${text.replaceAll('"', '""')}"`;
        const text = `title,chords\n${cells.map((row) => row.map(quoted).join()).join('\n')}`;
        for (const { chart } of readChartList(text)) if (chart) readSheet(chart);
      }),
      { numRuns: 100 }
    );
  });
});
