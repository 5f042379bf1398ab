import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { Cell, Chart, ChartLine, GridRow } from './model';
import { declarationOf, readDirective, withDeclaration } from './directives';
import { chartHead, readChart, readMeter } from './read';
import { transposeText } from './transpose';
import { unroll } from './unroll';
import { writeChart } from './write';

function form(text: string) {
  const { chart, places, problems } = readChart(text);
  const unrolled = unroll(chart, places);
  return {
    ...unrolled,
    problems: [...problems, ...unrolled.problems],
    says: unrolled.changes.map((c) => `${c.bar}.${+c.beat.toFixed(2)} ${c.symbol} ${+c.beats.toFixed(2)}`)
  };
}

describe('chart text', () => {
  it('accepts bars with no directives at all', () => {
    expect(form('| Fm7 | Bb7 |\n| Ebmaj7 | C7b9 |').says).toEqual([
      '1.1 Fm7 4',
      '2.1 Bb7 4',
      '3.1 Ebmaj7 4',
      '4.1 C7b9 4'
    ]);
    expect(form('Dm7 G7 | Cmaj7').says).toEqual(['1.1 Dm7 2', '1.3 G7 2', '2.1 Cmaj7 4']);
  });

  it('splits a bar’s beats evenly', () => {
    expect(form('| Dm7 . G7 . |').says).toEqual(['1.1 Dm7 2', '1.3 G7 2']);
    expect(form('| Dm7 G7 |').says).toEqual(['1.1 Dm7 2', '1.3 G7 2']);
    expect(form('{time: 3/4}\n| Am7 . D7 |').says).toEqual(['1.1 Am7 2', '1.3 D7 1']);
    expect(form('| A D E |').says).toEqual(['1.1 A 1.33', '1.2.33 D 1.33', '1.3.67 E 1.33']);
  });

  it('counts a slash as one beat', () => {
    expect(form('| Dm7 / / G7 |').says).toEqual(['1.1 Dm7 3', '1.4 G7 1']);
    expect(form('| Dm7 / G7 |').says).toEqual(['1.1 Dm7 2', '1.3 G7 2']);
    expect(form('| Dm7 / / / / |').problems[0]!.code).toBe('too-many-beats');
  });

  it('holds a chord over the bar line', () => {
    expect(form('| Gm7 | . . C7 . |').says).toEqual(['1.1 Gm7 6', '2.3 C7 2']);
    expect(form('| Gm7 | |').says).toEqual(['1.1 Gm7 8']);
  });

  it('repeats one bar and two', () => {
    expect(form('| Gm6 | % |').says).toEqual(['1.1 Gm6 4', '2.1 Gm6 4']);
    expect(form('| Fm7 | Bb7 | %% |').says.map((s) => s.split(' ')[1])).toEqual(['Fm7', 'Bb7', 'Fm7', 'Bb7']);
    expect(form('| Fm7 | Bb7 | %% | |').bars.length).toBe(4);
    expect(form('| % |').problems[0]!.code).toBe('nothing-to-repeat');
  });

  it.each([
    ['|: Bb | Gm :|', 'Bb Gm Bb Gm'],
    ['| C | F :| G |', 'C F C F G'],
    ['|: C |1 F :|2 G |.', 'C F C G'],
    ['|: C |1 F | D :|2 G | A |.', 'C F D C G A'],
    ['|: C |1,2 F :|3 G |.', 'C F C F C G'],
    ['| Am ||: C :||: F :| G |', 'Am C C F F G'],
    ['|: C :|: F :|', 'C C F F'],
    ['|: C | F\n| G :|', 'C F G C F G']
  ])('unrolls %s', (text, symbols) => {
    const { changes, problems } = form(text);
    expect(changes.map((c) => c.symbol).join(' ')).toBe(symbols);
    expect(problems).toEqual([]);
  });

  it.each([
    ['D.C. al Fine', '| C | F | Fine\n| G | A | D.C. al Fine', 'C F G A C F'],
    ['D.C., which ends at Fine too', '| C | F | Fine\n| G | A | D.C.', 'C F G A C F'],
    ['D.C. without a Fine', '| C | F |\n| G | D.C.', 'C F G C F G'],
    ['D.S. al Fine', '| C |\nSegno | F | G | Fine\n| A | D.S. al Fine', 'C F G A F G'],
    [
      'D.S. al Coda',
      '| C |\nSegno | F | G | To Coda\n| A | D.S. al Coda\nCoda | Bb | Eb |',
      'C F G A F G Bb Eb'
    ],
    ['D.C. al Coda', '| C | F | To Coda\n| G | DC al coda\nCoda | Bb |', 'C F G C F Bb'],
    ['a jump behind a repeat', '|: C | F :| Fine\n|: G | A :| D.C. al Fine', 'C F C F G A G A C F'],
    ['no repeat after the jump', '|: C | F :| Fine\n| G | D.C. al Fine', 'C F C F G C F'],
    ['of endings the last', '|: C |1 F :|2 G | Fine\n| A | da capo al fine', 'C F C G A C G'],
    ['a coda with a repeat', '| C | To Coda\n| G | D.C. al Coda\nCoda |: Bb :| Eb |', 'C G C Bb Eb']
  ])('leads through the form with %s', (_, text, symbols) => {
    const { changes, problems, bars } = form(text);
    expect(changes.map((c) => c.symbol).join(' ')).toBe(symbols);
    expect(problems).toEqual([]);
    expect(bars.map(({ number }) => number)).toEqual(bars.map((_bar, i) => i + 1));
    // Inside a grid as outside it.
    const grid = form(`{start_of_grid}\n${text}\n{end_of_grid}`);
    expect(grid.changes.map((c) => c.symbol).join(' ')).toBe(symbols);
  });

  it.each([
    ['a D.S. without a segno', '| C |\n| F | D.S.', 'C F', 'no-segno', 2],
    ['a jump to a coda that is not there', '| C | To Coda\n| F | D.C. al Coda', 'C F', 'no-coda', 2],
    ['a jump to a fine that is not there', '| C |\n| F | D.C. al Fine', 'C F', 'no-fine', 2],
    ['a To Coda that no jump counts', '| C | To Coda\n| F |\nCoda | G |', 'C F G', 'no-jump', 1],
    ['a fine that nothing leads back to', '| C | Fine\n| F |', 'C F', 'no-jump', 1],
    ['two segnos', 'Segno | C |\nSegno | F |\n| G | D.S.', 'C F G C F G', 'word-twice', 2],
    ['two jumps', '| C | D.C.\n| F | D.C.', 'C C F', 'second-jump', 2],
    ['a coda before To Coda', 'Coda | C |\n| F | To Coda\n| G | D.C. al Coda', 'C F G', 'coda-unreached', 3]
  ])('says of %s what is wrong, at its place', (_, text, symbols, code, line) => {
    const { changes, problems } = form(text);
    expect(changes.map((c) => c.symbol).join(' ')).toBe(symbols);
    expect(problems).toMatchObject([{ code, place: { line } }]);
  });

  it('takes a fine in the last bar, and words that lead nowhere, as they are', () => {
    expect(form('| C | F | Fine').problems).toEqual([]);
    expect(form('| C | F | slower').problems).toEqual([]);
    const text = 'Segno | C | F | Fine\n| G | D.S. al Fine\n';
    expect(writeChart(readChart(text).chart)).toBe(text.replaceAll('Segno |', 'Segno |'));
  });

  it('declares a pickup, which is no bar of its own', () => {
    for (const said of ['{meta: pickup 2}', '{pickup: 2}']) {
      const { bars, pickup, changes, problems } = form(`${said}\n| C | F |`);
      expect([bars.length, pickup, changes[0]!.start, problems.length]).toEqual([2, 2, 0, 0]);
    }
    expect(form('| C |').pickup).toBe(0);
    expect(form('{meta: pickup 99}\n| C |').problems[0]!.code).toBe('bad-pickup');
    expect(form('{meta: pickup soon}\n| C |')).toMatchObject({
      pickup: 0,
      problems: [{ code: 'bad-pickup' }]
    });
  });

  it('ends the last ending where the next section begins', () => {
    const section = (label: string, bars: string) =>
      `{start_of_grid label="${label}"}\n${bars}\n{end_of_grid}`;
    const text = `${section('A', '| C |1 D :|2 E |')}\n${section('B', '| F | G :|')}`;
    expect(
      form(text)
        .changes.map((c) => `${c.section}${c.symbol}`)
        .join(' ')
    ).toBe('AC AD AC AE BF BG BF BG');
  });

  it('tells of a repeat that is never closed, and plays it once', () => {
    const { problems, changes } = form('|: C | F |');
    expect(problems[0]).toMatchObject({ code: 'repeat-not-closed', place: { line: 1 } });
    expect(changes).toHaveLength(2);
    expect(form('| C |1 F | G |').problems[0]!.code).toBe('ending-without-repeat');
  });

  it('marks an unreadable chord at its place and goes on', () => {
    const { changes } = form('{key: F}\n| Gm7 | C7zz |');
    expect(changes[1]).toMatchObject({
      symbol: 'C7zz',
      chord: null,
      place: { line: 2, column: 9, length: 4 }
    });
    expect(changes[0]!.chord!.root).toBe('G');
  });

  it('reads alterations written with spaces in parentheses', () => {
    expect(form('| C7(b9, #11) | F |').says).toEqual(['1.1 C7(b9, #11) 4', '2.1 F 4']);
  });

  it('knows sections, meters and what the head says', () => {
    const text =
      '{title: Rope Locker}\n{key: Bb}\n{time: 3/4}\n{tempo: 90}\n{meta: feel waltz}\n{start_of_grid label="A"}\n| Bb | Cm7 |\n{end_of_grid}\n{time: 4/4}\n{start_of_grid label="B"}\n| F7 |\n{end_of_grid}';
    const { bars, beats } = form(text);
    expect(bars.map((bar) => [bar.section, bar.meter.beats])).toEqual([
      ['A', 3],
      ['A', 3],
      ['B', 4]
    ]);
    expect(beats).toBe(10);
    expect(chartHead(readChart(text).chart)).toEqual({
      title: 'Rope Locker',
      key: 'Bb',
      meter: { beats: 3, unit: 4 },
      tempo: 90,
      feel: 'waltz',
      style: null,
      pickup: 0,
      melody: null
    });
  });

  it('refuses impossible meters and tempos in words', () => {
    expect(readMeter('4/3')).toBeNull();
    expect(readChart('{time: 9/5}\n{tempo: 9000}').problems.map((p) => p.code)).toEqual([
      'bad-time',
      'bad-tempo'
    ]);
  });

  it('stops a form that grows too long', () => {
    expect(form('| C |\n'.repeat(2001)).tooLong).toBe(true);
    expect(form('| C |\n'.repeat(2000)).tooLong).toBe(false);
    expect(form(`|: ${'C | '.repeat(300)} |1,2,3,4,5,6,7,8 D :|9 E |`).tooLong).toBe(true);
  });

  it('sets a directive and leaves the rest as typed', () => {
    expect(withDeclaration('{title: Old}\n|  C |', 'title', 'New {one}')).toBe('{title: New {one}}\n|  C |');
    expect(withDeclaration('| C |', 'title', 'New\none')).toBe('{title: New one}\n| C |');
  });

  it.each([
    ['{t: Old}', '{t: New}'],
    ['{Title: Old}', '{Title: New}'],
    ['{TITLE Old}', '{TITLE: New}'],
    ['{meta: title Old}', '{meta: title New}'],
    ['  { Meta : Title   Old }', '{Meta: Title New}'],
    ['{title: Old}\r\n{key: F}\r\n{t: Older}', '{title: Old}\r\n{key: F}\r\n{t: New}']
  ])('renames where the title stands as %j', (before, after) => {
    const renamed = withDeclaration(`${before}\n| C |`, 'title', 'New');
    expect(renamed).toBe(`${after}\n| C |`);
    expect(chartHead(readChart(renamed).chart).title).toBe('New');
  });

  it.each(['{key: Eb}', '{Key:Eb}', '{KEY Eb}', '{meta: key Eb}', '{Meta: Key   Eb}'])(
    '%s is the key, read and moved',
    (line) => {
      const text = `${line}\n| Ebmaj7 em7 | a7/c# N.C. | oops |`;
      expect(chartHead(readChart(text).chart).key).toBe('Eb');
      const up = readChart(transposeText(text, { tonic: 'Eb', mode: 'major' }, 2)).chart;
      expect(chartHead(up).key).toBe('F');
      const symbols = unroll(up).changes.map(({ symbol }) => symbol);
      expect(symbols).toEqual(['Fmaj7', 'F#m7', 'B7/D#', 'N.C.', 'oops']);
    }
  );

  it('reads the meter in any spelling, and every change of it', () => {
    expect(form('{Time: 3/4}\n| C |\n{meta: time 4/4}\n| F |').says).toEqual(['1.1 C 3', '2.1 F 4']);
    expect(readChart('{meta: tempo 9000}').problems[0]!.code).toBe('bad-tempo');
  });

  it.each([
    ['{a b: c}', 'a', 'b: c'],
    ['{ x : y }', 'x', 'y'],
    ['{c: slow}', 'comment', 'slow'],
    ['{meta: artist none }', 'artist', 'none']
  ])('%s declares', (line, name, value) => {
    expect(declarationOf(readDirective(line)!)).toEqual({ name, value });
  });

  it('keeps unknown directives, remarks and margins through a round trip', () => {
    const text =
      '# by hand\n{x_ferry: deck 4}\n{start_of_grid label="Intro"}\nIn | Dm7 . | % :| twice\n{end_of_grid}\n{comment: slow}\n';
    const { chart } = readChart(text);
    expect(readChart(writeChart(chart)).chart).toEqual(chart);
    expect(writeChart(chart)).toContain('{x_ferry: deck 4}');
    expect(writeChart(chart)).toContain('twice');
  });

  it('reads back what it writes', () => {
    const symbol = fc.constantFrom('C', 'Fm7', 'Bb7(b9, #11)', 'Ebmaj7/G', 'N.C.', 'C#dim7', 'oops');
    const cell: fc.Arbitrary<Cell> = fc.oneof(
      symbol.map((s): Cell => ({ kind: 'chord', symbol: s })),
      fc.constantFrom<Cell>({ kind: 'hold', mark: '.' }, { kind: 'hold', mark: '/' })
    );
    const barLine = fc.record({
      style: fc.constantFrom('single', 'double', 'final'),
      repeatEnd: fc.boolean(),
      repeatStart: fc.boolean(),
      ending: fc.constantFrom<number[]>([], [1], [2], [1, 2])
    });
    const row = fc
      .array(fc.array(cell, { minLength: 1, maxLength: 4 }), { minLength: 1, maxLength: 5 })
      .chain((bars) =>
        fc
          .array(barLine, { minLength: bars.length + 1, maxLength: bars.length + 1 })
          .map((lines): GridRow => ({
            kind: 'bars',
            left: '',
            right: '',
            bars: bars.map((cells) => ({ cells })),
            // A start of a repeat is written on a plain line; the last line opens nothing.
            barLines: lines.map((line, i) => ({
              ...line,
              style: line.repeatStart && i < bars.length ? 'single' : line.style,
              repeatStart: i < bars.length && line.repeatStart,
              ending: i < bars.length ? line.ending : [],
              repeatEnd: i > 0 && line.repeatEnd
            })) as GridRow['barLines']
          }))
      );
    const line = fc.oneof(
      row,
      fc.constantFrom<ChartLine>(
        { kind: 'directive', name: 'x_deck', value: '4 aft' },
        { kind: 'directive', name: 'key', value: 'Eb' },
        { kind: 'text', text: '# soft' }
      )
    );
    fc.assert(
      fc.property(fc.array(line, { maxLength: 8 }), (lines) => {
        const chart: Chart = {
          lines: [{ kind: 'grid-start', label: 'A', rest: '' }, ...lines, { kind: 'grid-end' }]
        };
        expect(readChart(writeChart(chart)).chart).toEqual(chart);
      })
    );
  });
});
