/** Edits on bars: each changes what it says and nothing else, whatever text it meets. */
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { DEMO_CHARTS } from '../../../scenario/charts';
import { readChart } from '../read';
import { unroll } from '../unroll';
import { barAtPlace, type WrittenBar } from './bars';
import { cellsFor, chordsIn, splitOf } from './beats';
import * as edit from './edits';
import { chartOfBars } from './excerpt';
import { remarksOf } from './remarks';
import * as section from './sections';

/** Untidy, with words, repeats, endings, jumps, meters, remarks and directives that nobody knows. */
const ODD = `{title: Slack Water}
{x_tuner: left as it is}
{key: Ab}
# a line of words
{c: slowly}
{start_of_grid label="A" shape="4x4"}
|: Fm7  | Bb7 / / C7 |1 Ebmaj7 | C7b9 :|2  Ebmaj7 | % |
Segno | Dbmaj7 . Gm7b5 . | C7 |   To Coda
{end_of_grid}
{start_of_grid: Bridge}
{time: 3/4}
{comment: as a waltz}
| Fm6 | Fm6  G7 C7 |
{time: 4/4}
| %% | | Bbm7 | Eb7 | D.S. al Coda
Coda | Abmaj7 |.
{end_of_grid}
{unknown thing: kept}`;
const PLAIN = 'Tide Table\n\nFm7 | Bb7 | Ebmaj7 |\n| Cm7 | F7\n';
const TEXTS = [ODD, PLAIN, ODD.replaceAll('\n', '\r\n'), ...DEMO_CHARTS.map(({ text }) => text)];

const formOf = (text: string) => {
  const { chart, places } = readChart(text);
  return unroll(chart, places);
};
/** What stands in bars, without where they stand. */
const said = (bars: readonly WrittenBar[]) =>
  bars.map(
    ({
      chords,
      repeats,
      meter,
      section: label,
      repeatStart,
      repeatEnd,
      ending,
      leftWord,
      rightWord,
      notes
    }) =>
      JSON.stringify([
        chords.map(({ symbol, beat }) => [symbol, beat]),
        [repeats, meter.beats, meter.unit, label, repeatStart, repeatEnd, ending, leftWord, rightWord, notes]
      ])
  );
const others = (text: string) =>
  text.split(/\r\n|\n/).filter((line) => !line.includes('|') && !/grid|time|^\s*$/.test(line));

const anyText = fc.constantFrom(...TEXTS);
const anyBar = fc.nat(200);
const at = (text: string, bar: number) => bar % edit.barsOf(text).length;

describe('an edit on bars', () => {
  it('of what stands in one changes that bar alone', () => {
    fc.assert(
      fc.property(anyText, anyBar, fc.constantFrom('F#m7b5', 'Db9(#11)', 'N.C.'), (text, n, symbol) => {
        const bar = at(text, n);
        const after = edit.writeChords(text, bar, [{ symbol, beat: 0 }]);
        const [old, now] = [said(edit.barsOf(text)), said(edit.barsOf(after))];
        expect(now.toSpliced(bar, 1)).toEqual(old.toSpliced(bar, 1));
        expect(edit.barsOf(after)[bar]!.chords).toMatchObject([{ symbol, beat: 0 }]);
        expect(others(after)).toEqual(others(text));
        // Every other line is as it was typed.
        const line = edit.barsOf(text)[bar]!.line;
        const rest = (all: string) => all.split(/\r\n|\n/).toSpliced(line, 1);
        if (text === ODD || text === PLAIN) expect(rest(after)).toEqual(rest(text));
      })
    );
  });

  it('is nothing where it says what is there', () => {
    fc.assert(
      fc.property(anyText, anyBar, (text, n) => {
        const bar = at(text, n);
        const { cells } = edit.barsOf(text)[bar]!;
        expect(said(edit.barsOf(edit.writeCells(text, bar, cells)))).toEqual(said(edit.barsOf(text)));
      })
    );
  });

  it('that puts bars in is undone by taking them out', () => {
    fc.assert(
      fc.property(anyText, anyBar, fc.integer({ min: 1, max: 9 }), (text, n, count) => {
        const bar = at(text, n) - 1;
        const longer = edit.insertAfter(text, bar, edit.emptyBars(count));
        expect(edit.barsOf(longer)).toHaveLength(edit.barsOf(text).length + count);
        expect(others(longer)).toEqual(others(text));
        const back = edit.deleteBars(longer, { from: bar + 1, to: bar + count });
        // A word beside a row stays with the row's last bar, also where that is a new one.
        const plain = (all: string) =>
          said(edit.barsOf(all)).map((one) => one.replace(/"[^"]*(?:D\.S|To C)[^"]*"/, '""'));
        expect(plain(back)).toEqual(plain(text));
      })
    );
  });

  it('that moves bars keeps all that stands in them', () => {
    fc.assert(
      fc.property(anyText, anyBar, fc.nat(3), anyBar, (text, n, length, goal) => {
        const from = at(text, n);
        const all = edit.barsOf(text);
        const to = Math.min(all.length - 1, from + length);
        const moved = edit.moveBars(text, { from, to }, at(text, goal) - 1);
        const words = (bars: readonly WrittenBar[]) => bars.map(({ cells }) => JSON.stringify(cells)).sort();
        expect(words(edit.barsOf(moved))).toEqual(words(all));
        expect(others(moved)).toEqual(others(text));
        // As many repeats begin and end as before.
        const marks = (bars: readonly WrittenBar[]) => [
          bars.filter(({ repeatStart }) => repeatStart).length,
          bars.filter(({ repeatEnd }) => repeatEnd).length
        ];
        expect(marks(edit.barsOf(moved))).toEqual(marks(all));
      })
    );
  });

  it('that names a section is undone by joining it', () => {
    fc.assert(
      fc.property(anyText, anyBar, (text, n) => {
        const bar = at(text, n);
        const all = edit.barsOf(text);
        const named = section.nameSection(text, bar, 'C "two"');
        const now = edit.barsOf(named);
        expect(now[bar]).toMatchObject({ section: 'C "two"', opensSection: true });
        expect(now.map(({ cells }) => cells)).toEqual(all.map(({ cells }) => cells));
        expect(now.map(({ notes, meter }) => [notes, meter])).toEqual(
          all.map(({ notes, meter }) => [notes, meter])
        );
        if (all[bar]!.opensSection) return;
        expect(said(edit.barsOf(section.joinSection(named, bar)))).toEqual(said(all));
      })
    );
  });

  it('that sets a meter sets it for those bars alone', () => {
    fc.assert(
      fc.property(
        anyText,
        anyBar,
        fc.constantFrom(2, 3, 5),
        fc.integer({ min: 1, max: 3 }),
        (text, n, beats, count) => {
          const bar = at(text, n);
          const all = edit.barsOf(text);
          const now = edit.barsOf(section.setMeter(text, bar, { beats, unit: 4 }, count));
          const wanted = all.map(({ meter }, i) =>
            i >= bar && i < bar + count ? { beats, unit: 4 } : meter
          );
          expect(now.map(({ meter }) => meter)).toEqual(wanted);
          expect(now.map(({ cells }) => cells)).toEqual(all.map(({ cells }) => cells));
        }
      )
    );
  });

  it('that writes remarks keeps them there until they are taken away', () => {
    fc.assert(
      fc.property(anyText, anyBar, (text, n) => {
        const bar = at(text, n);
        const noted = section.setNotes(text, bar, ['lay out', 'brushes {here}']);
        expect(edit.barsOf(noted)[bar]!.notes).toEqual(['lay out', 'brushes here']);
        const bare = edit.barsOf(section.setNotes(noted, bar, []));
        expect(bare[bar]!.notes).toEqual([]);
        expect(bare.map(({ cells }) => cells)).toEqual(edit.barsOf(text).map(({ cells }) => cells));
      })
    );
  });
});

describe('the form', () => {
  const order = (text: string) =>
    formOf(text)
      .changes.map(({ symbol }) => symbol)
      .join(' ');

  it('keeps its repeats where bars inside them are moved, cut or put in', () => {
    const text = '| C |: F | G | Am :| D |';
    expect(edit.deleteBars(text, { from: 1, to: 1 })).toBe('| C |: G | Am :| D |');
    expect(edit.deleteBars(text, { from: 3, to: 4 })).toBe('| C |: F | G :|');
    expect(edit.deleteBars(text, { from: 1, to: 3 })).toBe('| C | D |');
    // Of what goes one repeat began before it, and another is whole.
    expect(edit.deleteBars('|: C | F :|: G | Am :| D |', { from: 1, to: 3 })).toBe('|: C :| D |');
    expect(order(edit.moveBars(text, { from: 4, to: 4 }, 1))).toBe('C F D G Am F D G Am');
    expect(edit.insertAfter(text, 3, edit.copyBars(text, { from: 1, to: 3 }))).toBe(
      '| C |: F | G | Am :|: F | G | Am :| D |'
    );
    const ending = '|: C |1 F | G :|2 Am | D |';
    expect(edit.deleteBars(ending, { from: 1, to: 1 })).toBe('|: C |1 G :|2 Am | D |');
    expect(edit.deleteBars(ending, { from: 3, to: 3 })).toBe('|: C |1 F | G :|2 D |');
  });

  it('is marked: repeats, endings, and the words that lead through it', () => {
    let text = '| C | F | G | Am | D | E |\n';
    text = edit.repeatStretch(text, { from: 0, to: 2 });
    text = edit.markBar(edit.markBar(text, 2, { ending: [1] }), 3, { ending: [2] });
    expect(text).toBe('|: C | F |1 G :|2 Am | D | E |\n');
    expect(order(text)).toBe('C F G C F Am D E');
    text = edit.setWord(edit.setWord(text, 3, 'left', 'Segno'), 4, 'right', 'D.S.');
    expect(text.replaceAll(/ +/g, ' ')).toBe('|: C | F |1 G :|\nSegno |2 Am | D | D.S.\n| E |\n');
    expect(order(edit.setWord(text, 4, 'right', ''))).toBe('C F G C F Am D E');
    expect(order(edit.unrepeatStretch('|: C |1 F :|2 G |', { from: 0, to: 2 }))).toBe('C F G');
  });

  it('has its sections moved and doubled whole', () => {
    const tune = ['A', 'B']
      .map((name) => `{start_of_grid label="${name}"}\n| ${name} |\n{end_of_grid}\n`)
      .join('{x: y}\n');
    expect(order(section.moveSection(tune, 1, 0))).toBe('B A');
    expect(order(section.moveSection(tune, 0, 1))).toBe('B A');
    expect(order(section.duplicateSection(tune, 0))).toBe('A A B');
    expect(section.gridIndex(tune, 1)).toBe(1);
  });

  it('is begun in a text that has no bars', () => {
    const text = edit.insertAfter('{title: New Rope}\n', -1, edit.emptyBars(1));
    expect(edit.writeCells(text, 0, edit.cellsIn('Fm7'))).toBe(
      '{title: New Rope}\n{start_of_grid}\n| Fm7 |\n{end_of_grid}\n'
    );
    expect(edit.insertAfter('', 0, edit.emptyBars(1))).toContain('{start_of_grid}');
  });

  it('says the meter of the whole chart before another one is set inside it', () => {
    const text = section.setMeter('| C | F | G |\n', 1, { beats: 2, unit: 4 });
    expect(formOf(text).bars.map(({ beats }) => beats)).toEqual([4, 2, 4]);
  });

  it('ends where it ended when bars are written on', () => {
    expect(edit.insertAfter('| C | F |.', 1, edit.emptyBars(1))).toBe('| C | F |  |.');
  });
});

describe('chords in a bar', () => {
  const four = { beats: 4, unit: 4 };
  const at4 = (...beats: number[]) => beats.map((beat, i) => ({ symbol: 'ABCDEFG'[i]!, beat }));
  const words = (cells: ReturnType<typeof cellsFor>) =>
    cells.map((cell) => (cell.kind === 'chord' ? cell.symbol : '.')).join(' ');

  it.each([
    [[0], four, 'A'],
    [[0, 2], four, 'A B'],
    [[0, 2, 3], four, 'A . B C'],
    [[1], four, '. A . .'],
    [[0, 3.5], four, 'A . . . . . . B'],
    [[0, 2], { beats: 3, unit: 4 }, 'A . B'],
    [[0, 3], { beats: 6, unit: 8 }, 'A B'],
    [[], four, '']
  ])('at beats %j are written as few cells', (beats, meter, text) => {
    const cells = cellsFor(at4(...beats), meter);
    expect(words(cells)).toBe(text);
    expect(chordsIn(cells, meter).map(({ beat }) => beat)).toEqual(beats);
  });

  it('split the time of the one before', () => {
    expect([4, 2, 1, 3].map((beats) => splitOf({ beat: 0, beats }))).toEqual([2, 1, 0.5, 2]);
  });

  it('go from beat to beat and from bar to bar', () => {
    const text = '| Dm7 G7 | C |';
    expect(edit.moveChord(text, { bar: 0, chord: 1 }, { bar: 0, beat: 3 })).toBe('| Dm7 . . G7 | C |');
    expect(edit.moveChord(text, { bar: 0, chord: 1 }, { bar: 1, beat: 2 })).toBe('| Dm7 | C G7 |');
    expect(edit.moveChord(text, { bar: 1, chord: 0 }, { bar: 0, beat: 2 })).toBe('| Dm7 C |  |');
  });
});

describe('some bars as a chart of their own', () => {
  it('stand written out, with their meters and what the head says', () => {
    const text =
      '{title: x}\n{key: Eb}\n{time: 4/4}\n| C | % |\n{comment: here}\n| % | F |\n{time: 3/4}\n| G |\n{time: 4/4}\n| Am |\n';
    const alone = chartOfBars(text, { from: 2, to: 5 }, 'y');
    expect(alone).toMatch(/^\{title: y\}\n\{key: Eb\}\n\{time: 4\/4\}/);
    expect(formOf(alone).changes.map(({ symbol, beats }) => symbol + beats)).toEqual([
      'C4',
      'F4',
      'G3',
      'Am4'
    ]);
  });
});

describe('remarks', () => {
  it('stand over the change that sounds in their bar, as often as it is played', () => {
    const text =
      '|: C |\n{c: soft}\n| F :|\n| %% | |\n{ci: still held}\n| . |\n{c: no more}\n| G |\n{c: after all}\n';
    expect(remarksOf(readChart(text).chart, formOf(text))).toEqual([
      { bar: 2, change: 1, text: 'soft' },
      { bar: 4, change: 3, text: 'soft' },
      { bar: 7, change: 5, text: 'still held' },
      { bar: 8, change: 6, text: 'no more' }
    ]);
  });
});

describe('a place of the text', () => {
  it('lies in the bar that is written there', () => {
    fc.assert(
      fc.property(fc.constantFrom(ODD, PLAIN, '| C | F |', '|C|F|'), anyBar, (text, n) => {
        const bars = edit.barsOf(text);
        const { places } = readChart(text);
        const bar = bars[n % bars.length]!;
        const place = places.get(bar.line)?.[bar.at]?.[0];
        if (place) expect(barAtPlace(text, bars, place)?.index).toBe(bar.index);
      })
    );
    expect(barAtPlace(ODD, edit.barsOf(ODD), { line: 1, column: 1 })?.index).toBe(0);
    expect(barAtPlace('', [], { line: 1, column: 1 })).toBeUndefined();
  });
});
