import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { readSheet } from '../../harmony/sheet';
import { importText } from './import';

/** The bars as they would be played: "Fm7 | Bb7 Eb"; sections before them. */
function bars(text: string): string {
  const { chart } = importText(text);
  if (chart === null) return '';
  const { form } = readSheet(chart);
  return form.bars
    .map(({ number }) =>
      form.changes
        .filter(({ bar }) => bar === number)
        .map(({ symbol }) => symbol)
        .join(' ')
    )
    .join(' | ');
}
const left = (text: string) => importText(text).left.map(({ line, text: words }) => `${line}: ${words}`);
const head = (text: string) => readSheet(importText(text).chart ?? '').head;

describe('pasted texts', () => {
  it.each([
    ['spaces', 'Abm7 Db7 Gbmaj7 Eb7b9'],
    ['commas', 'Abm7, Db7, Gbmaj7, Eb7b9'],
    ['semicolons', 'Abm7; Db7; Gbmaj7; Eb7b9'],
    ['dashes', 'Abm7 - Db7 - Gbmaj7 - Eb7b9'],
    ['long dashes', 'Abm7 – Db7 — Gbmaj7 – Eb7b9'],
    ['dashes without space', 'Abm7-Db7-Gbmaj7-Eb7b9'],
    ['arrows', 'Abm7 → Db7 → Gbmaj7 → Eb7b9'],
    ['typed arrows', 'Abm7 -> Db7=>Gbmaj7 --> Eb7b9'],
    ['strokes', 'Abm7 / Db7 / Gbmaj7 / Eb7b9'],
    ['tabs', 'Abm7\tDb7\tGbmaj7\tEb7b9'],
    ['line ends', 'Abm7\nDb7\r\nGbmaj7\n\nEb7b9\n'],
    ['numbers', '1. Abm7\n2. Db7\n3) Gbmaj7\n4: Eb7b9'],
    ['bullets', '• Abm7\n* Db7\n- Gbmaj7\n– Eb7b9'],
    [
      'a box',
      '┌──────┬─────┬────────┬───────┐\n│ Abm7 │ Db7 │ Gbmaj7 │ Eb7b9 │\n└──────┴─────┴────────┴───────┘'
    ],
    ['parentheses', '(Abm7 Db7) Gbmaj7 (Eb7b9)'],
    ['brackets', '[Abm7] [Db7] [Gbmaj7] [Eb7b9]'],
    ['bars', 'Abm7 | Db7 | Gbmaj7 | Eb7b9'],
    ['bar numbers', '1 | Abm7 | Db7 |\n3 | Gbmaj7 | Eb7b9 |']
  ])('parted by %s', (_, text) => {
    expect(bars(text)).toBe('Abm7 | Db7 | Gbmaj7 | Eb7b9');
    expect(left(text)).toEqual([]);
  });

  it.each([
    ['E-7 A-7 D', 'E-7 | A-7 | D'],
    ['E-7-A7-D', 'E-7 | A7 | D'],
    ['Bbm7 Eb7    Abmaj7    Dbmaj7', 'Bbm7 Eb7 | Abmaj7 | Dbmaj7'],
    ['Am F C G x2', 'Am | F | C | G | Am | F | C | G'],
    ['(Am F) x3 E7', 'Am | F | Am | F | Am | F | E7'],
    ['| Am | F | (x2)', 'Am | F | Am | F'],
    ['|: Am | F :| x2', 'Am | F | Am | F'],
    ['|: Am | F :| x3', 'Am | F | Am | F | Am | F'],
    ['| Am | F | 2x', 'Am | F | Am | F'],
    ['| Dm7 - G7 - |', 'Dm7 G7'],
    ['| Dm7 → G7 | C |', 'Dm7 G7 | C'],
    ['Bm7 Bb7 Ebmja7', 'Bm7 | Bb7 | Ebmja7']
  ])('%s is %s', (text, played) => {
    expect(bars(text)).toBe(played);
  });

  it.each([
    ['ii V I in Eb', 'Fm | Bb | Eb'],
    ['ii7 - V7 - Imaj7 in Gb', 'Abm7 | Db7 | Gbmaj7'],
    ['Key: F#m\niiø V7 i', 'G#ø | C#7 | F#m'],
    ['iiø7 V7b9 im6 (in Bbm)', 'Cø7 | F7b9 | Bbm6'],
    ['I V vi IV in Ab', 'Ab | Eb | Fm | Db'],
    ['I bVII IV in E', 'E | D | A'],
    ['i VII VI V7 in Bm', 'Bm | A | G | F#7'],
    ['V7/ii ii7 V7 I in Db', 'Bb7 | Ebm7 | Ab7 | Db'],
    ['| ii7 V7 | Imaj7 |', 'Dm7 G7 | Cmaj7']
  ])('numerals: %s', (text, played) => expect(bars(text)).toBe(played));

  it('say which key was taken where numerals name none', () => {
    expect(left('iiø V7 i')).toEqual(['1: iiø']);
    expect(bars('iiø V7 i')).toBe('Dø | G7 | Cm');
  });

  it('know title, key, tempo, meter, feel and parts by their usual words', () => {
    const text =
      'Lights at Pier Nine\n\nKey: Eb, Tempo: 96 bpm\nTime: 3/4\nFeel = waltz\n[Verse 1]\nEb Cm\nChorus:\nAb Bb7\nB: Gm C7';
    expect(head(text)).toEqual({
      title: 'Lights at Pier Nine',
      key: 'Eb',
      meter: { beats: 3, unit: 4 },
      tempo: 96,
      feel: 'waltz',
      style: null,
      pickup: 0,
      melody: null
    });
    const { form } = readSheet(importText(text).chart!);
    expect(form.bars.map(({ section }) => section)).toEqual([
      'Verse 1',
      'Verse 1',
      'Chorus',
      'Chorus',
      'B',
      'B'
    ]);
    expect(left(text)).toEqual([]);
  });

  it('say line by line what was left out', () => {
    const text =
      'Rope Locker\nAm      F\nDown by the water\n\n[C]late at [G]night\n| Dm | G | ring out\ne|--0--2--|\nKey: purple';
    expect(bars(text)).toBe('Am | F | C | G | Dm | G');
    expect(left(text)).toEqual([
      '3: Down by the water',
      '5: late at night',
      '6: ring out',
      '7: e|--0--2--|',
      '8: Key: purple'
    ]);
  });

  it('take a letter alone over a line of chords for the name of a part, and in a column for a chord', () => {
    expect(bars('A\nAm F\nB\nDm G')).toBe('Am | F | Dm | G');
    expect(bars('A\nD\nE\nA')).toBe('A | D | E | A');
  });

  it('leave a chart as it is', () => {
    for (const text of ['| Fm7 | Bb7 |', '{t: A}\n{sog}\nA | C . | % :|\n{eog}\n# soft\n', 'Am F | C G']) {
      expect(importText(text)).toEqual({ chart: text, left: [] });
    }
  });

  it('with no chord in it give none, and say so', () => {
    for (const text of ['', 'Nothing here but words, at all.', '┌──┐', '12 34']) {
      expect(importText(text).chart).toBeNull();
      expect(importText(text).left.length).toBeGreaterThan(0);
    }
  });

  it('lose no chord, however they are parted', () => {
    const symbol = fc.constantFrom('C', 'Abm7', 'F#7b9', 'Bbmaj7', 'Eø7', 'Dsus4', 'G/B', 'Db6');
    const sign = fc.constantFrom(' ', ', ', '; ', ' - ', ' → ', '\t', '\n', ' / ', ' | ', '->');
    fc.assert(
      fc.property(fc.array(symbol, { minLength: 2, maxLength: 12 }), sign, (symbols, parting) => {
        expect(bars(symbols.join(parting)).split(/ \| | /)).toEqual(symbols);
      })
    );
  });

  it.each(['|A:||-', '[x2→Eb'])('%s comes out as a chart that stays as it is', (text) => {
    const { chart } = importText(text);
    expect(importText(chart!).chart).toBe(chart);
  });

  it('never throw, and what comes out is a chart', () => {
    const scrap = fc.constantFrom(
      ...'[ ] ( ) | : x2 - → Am F#m7 ii V7 in Eb Key: A: 1. % / { } {t: [Verse] la ┃ ║ , \n \t'.split(' '),
      '\n',
      '  '
    );
    fc.assert(
      fc.property(fc.array(scrap, { maxLength: 30 }), fc.constantFrom('', ' '), (scraps, gap) => {
        const { chart } = importText(scraps.join(gap));
        if (chart !== null) expect(importText(chart).chart).toBe(chart);
      }),
      { numRuns: 1500 }
    );
  });
});

describe('sheets as other programs and other hands write them', () => {
  const told = (text: string) => importText(text).left.map(({ text: words, why }) => `${words}: ${why}`);

  it('a chorus is recalled where it stands', () => {
    const sheet = [
      '{title: Tide}',
      '{start_of_chorus}',
      '[Abm7]Haul a[Db7]way',
      '{end_of_chorus}',
      '{start_of_verse}',
      '[Gb]Down the [B]quay',
      '{end_of_verse}',
      '{chorus}',
      '[Ebm]Home'
    ].join('\n');
    expect(bars(sheet)).toBe('Abm7 | Db7 | Gb | B | Abm7 | Db7 | Ebm');
    expect(readSheet(importText(sheet).chart!).form.bars.map(({ section }) => section)).toEqual([
      'chorus',
      'chorus',
      'verse',
      'verse',
      'chorus',
      'chorus',
      ''
    ]);
    expect(bars('{soc}\n| F | C |\n{eoc}\n| Dm | Bb |\n{chorus}')).toBe('F | C | Dm | Bb | F | C');
    expect(told('{chorus}\n| F | C |')).toContain('chorus: recalls a part that was not written before');
  });

  it('comments and annotations are told, and name a part only where they are a name', () => {
    const sheet =
      '{comment: play softly}\n[Fm7]Haul a[Bb7]way [*slower here]\n{c: Bridge}\n{ci: louder}\n[Eb]Down';
    expect(bars(sheet)).toBe('Fm7 | Bb7 | Eb');
    expect(told(sheet)).toEqual(
      expect.arrayContaining(['play softly: a comment', 'slower here: an annotation', 'louder: a comment'])
    );
    expect(readSheet(importText(sheet).chart!).form.bars.map(({ section }) => section)).toEqual([
      '',
      '',
      'Bridge'
    ]);
    expect(importText(sheet).chart).not.toContain('{ci');
  });

  it('what asks to be moved is moved, with its key', () => {
    const sheet = '{key: C}\n{transpose: 2}\n[C]Haul [Am7]a[G7/B]way';
    expect(bars(sheet)).toBe('D | Bm7 | A7/C#');
    expect(head(sheet).key).toBe('D');
    expect(told(sheet)).toContain('transpose: 2: the chords were moved up by 2 semitones');
    expect(bars('{transpose: -1}\n| Db7 | Gb |')).toBe('C7 | F');
    expect(told('{transpose: lots}\n| Db7 | Gb |')[0]).toContain('no number of semitones');
  });

  it('German names are told by their H: H is B, and B is B flat', () => {
    for (const sheet of ['H7 E | H7 B |', '{key: H}\n| H7 E | H7 B |', '| H7 E | H7 B |', '[H7][E] [H7][B]'])
      expect(bars(sheet).replaceAll(' | ', ' '), sheet).toBe('B7 E B7 Bb');
    expect(head('{key: H}\n| H7 E | H7 B |').key).toBe('B');
    expect(bars('[Hm]Bald kommt [E/H]das Boot [B]')).toBe('Bm | E/B | Bb');
    expect(told('| H7 | B |')[0]).toBe('H7: German names: H is read as B, and B as B♭');
    // Without an H a B is what it is elsewhere, unless the reader is asked.
    expect(bars('| B7 | E |')).toBe('B7 | E');
    expect(bars(importText('| B7 | Es |', true).chart!)).toContain('Bb7');
    expect(bars('Heads up\n| Fm7 | Bb7 |')).toBe('Fm7 | Bb7');
  });

  it.each(['3/4', '3 / 4', '3/4, 120 bpm', '2/4', '6/8'])(
    'a line “%s” is a meter, whether a key is known or not',
    (line) => {
      for (const key of ['Key: Db\n', '']) {
        const { chart } = importText(`Breakwater\n${key}${line}\nDb | Bbm7 | Ebm7 | Ab7`);
        expect(chart).toContain(`{time: ${line.replace(/[ ]|,.*/g, '')}}`);
        expect(chart).toContain('| Db | Bbm7 | Ebm7 | Ab7 |');
        expect(readSheet(chart!).form.bars).toHaveLength(4);
      }
      // Among other numbers it is a chord over a bass.
      expect(importText('Key: C\n1 5/7 6m 4').chart).toContain('G/B');
    }
  );

  it('numbers are chords where a key is known', () => {
    expect(bars('Key: Ab\n1 4 5 6m\n1 57 1/3')).toBe('Ab | Db | Eb | Fm | Ab | Eb7 | Ab/C');
    expect(bars('{key: E}\n| 1 | 4 5 | 6m7 | b7 |')).toBe('E | A B | C#m7 | D');
    expect(bars('| 1 | 4 | 2m7 57 | 1 | in Bb')).toBe('Bb | Eb | Cm7 F7 | Bb');
    expect(bars('{key: Gm}\n1- 4- b6 57')).toBe('Gm | Cm | Eb | D7');
    expect(bars('{key: Gm}\n1- 6 7 1-')).toBe('Gm | Eb | F | Gm');
    expect(bars('1 4 5 in Ab')).toBe('Ab | Db | Eb');
    // Numbers alone may be anything: a count-in, a list.
    expect(importText('1 2 3 4').chart).toBeNull();
    expect(told('| 1 | 4 5 |')).toContain('| 1 | 4 5 |: numbers of chords want a key: Key: G');
  });

  it('one strange word among chords is told, and the chords come in', () => {
    expect(bars('Am F C G riff\nla la la\nAm F C G')).toBe('Am | F | C | G | Am | F | C | G');
    expect(told('Am F C G riff')).toContain('riff: not a chord');
    expect(importText('A day at sea').chart).toBeNull();
  });
});
