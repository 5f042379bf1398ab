import { describe, expect, it } from 'vitest';
import { readSheet } from '../../harmony/sheet';
import { playOrder, type BarMarks } from './form';
import { noteOf } from '../../line/model';
import { STANDARD } from '../../neck/tuning';
import { readMusicXml } from './read';
import { writeMusicXml } from './write';

describe('the way through a score', () => {
  const repeat: BarMarks = { opensRepeat: true };
  it.each<[string, BarMarks[], number[]]>([
    ['without marks', [{}, {}, {}], [0, 1, 2]],
    ['a repeat', [repeat, { times: 2 }, {}], [0, 1, 0, 1, 2]],
    ['a repeat from the head without its sign', [{}, { times: 2 }, {}], [0, 1, 0, 1, 2]],
    ['three times', [repeat, { times: 3 }, {}], [0, 1, 0, 1, 0, 1, 2]],
    [
      'two endings',
      [repeat, {}, { ending: [1], times: 2, endsEnding: true }, { ending: [2], endsEnding: true }, {}],
      [0, 1, 2, 0, 1, 3, 4]
    ],
    [
      'an ending of two bars for two passes, then another',
      [repeat, { ending: [1, 2] }, { times: 3, endsEnding: true }, { ending: [3], endsEnding: true }],
      [0, 1, 2, 0, 1, 2, 0, 3]
    ],
    ['two repeats one after another', [repeat, { times: 2 }, repeat, { times: 2 }], [0, 1, 0, 1, 2, 3, 2, 3]],
    [
      'D.C. al fine, no repeat after the jump',
      [repeat, { times: 2, fine: true }, { jump: 'head' }],
      [0, 1, 0, 1, 2, 0, 1]
    ],
    [
      'D.S. al coda',
      [{}, { segno: true }, { toCoda: true }, { jump: 'sign' }, { coda: true }],
      [0, 1, 2, 3, 1, 2, 4]
    ],
    ['D.C.', [{}, { jump: 'head' }], [0, 1, 0, 1]]
  ])('%s', (_, marks, order) => {
    expect(playOrder(marks)).toEqual(order);
  });

  it('ends whatever is marked', () => {
    const mad: BarMarks[] = [
      { jump: 'sign', times: 16 },
      { segno: true, toCoda: true, times: 16 },
      { coda: true, jump: 'head', ending: [3] }
    ];
    expect(playOrder(mad).length).toBeLessThanOrEqual(4000);
  });
});

/** A score of one part in 4/4, each bar its chord and a whole note. */
function score(
  bars: readonly {
    chord: string;
    kind?: string;
    pitch?: string;
    left?: string;
    right?: string;
    direction?: string;
  }[],
  more = ''
): string {
  const measures = bars.map(
    ({ chord, kind = 'major', pitch = 'C', left = '', right = '', direction = '' }, i) =>
      `<measure number="${i + 1}">${left ? `<barline location="left">${left}</barline>` : ''}${
        i === 0
          ? `<attributes><divisions>1</divisions>${more}<time><beats>4</beats><beat-type>4</beat-type></time></attributes>`
          : ''
      }${direction}<harmony><root><root-step>${chord}</root-step></root><kind>${kind}</kind></harmony><note><pitch><step>${pitch}</step><octave>4</octave></pitch><duration>4</duration></note>${
        right ? `<barline location="right">${right}</barline>` : ''
      }</measure>`
  );
  return `<score-partwise><part-list><score-part id="P1"><part-name>Voice</part-name></score-part></part-list><part id="P1">${measures.join('')}</part></score-partwise>`;
}
const formOf = (text: string) =>
  readSheet(text)
    .analysis.changes.map(({ symbol }) => symbol)
    .join(' ');

describe('a score from elsewhere', () => {
  const FORM = score([
    { chord: 'C', left: '<repeat direction="forward"/>', pitch: 'C' },
    { chord: 'G', kind: 'dominant', pitch: 'D' },
    {
      chord: 'F',
      pitch: 'E',
      left: '<ending number="1" type="start"/>',
      right: '<ending number="1" type="stop"/><repeat direction="backward"/>'
    },
    {
      chord: 'A',
      kind: 'minor',
      pitch: 'F',
      left: '<ending number="2" type="start"/>',
      right: '<ending number="2" type="stop"/>'
    }
  ]);

  it('is played out with its repeat and endings, chords and melody alike, and says so', () => {
    const { chart, melody, left } = readMusicXml(FORM);
    expect(formOf(chart!)).toBe('C G7 F C G7 Am');
    expect(melody!.map(({ start, note }) => `${start / 3840}${note}`)).toEqual([
      '0C',
      '1D',
      '2E',
      '3C',
      '4D',
      '5F'
    ]);
    expect(left).toEqual([
      {
        text: '',
        why: 'Repeats, endings and jumps are written out: 4 bars on the page are 6 as they are played'
      }
    ]);
  });

  it('follows its signs and words', () => {
    const word = (text: string, sound = '') =>
      `<direction><direction-type><words>${text}</words></direction-type>${sound}</direction>`;
    const { chart } = readMusicXml(
      score([
        { chord: 'C', direction: '<direction><direction-type><segno/></direction-type></direction>' },
        { chord: 'D', kind: 'minor', direction: word('To Coda') },
        { chord: 'G', direction: word('D.S. al Coda', '<sound dalsegno="1"/>') },
        { chord: 'F', direction: '<direction><direction-type><coda/></direction-type></direction>' }
      ])
    );
    expect(formOf(chart!)).toBe('C Dm G C Dm F');
  });

  it('leaves a bar marked with what stood there where a chord is not known, and says which', () => {
    const { chart, left } = readMusicXml(
      score([{ chord: 'C' }, { chord: 'G', kind: 'quartal' }]).replace(
        '<kind>quartal',
        '<kind text="qrt">quartal'
      )
    );
    expect(left).toEqual([{ text: 'Gqrt', why: 'a chord that is not known here, in bar 2' }]);
    const { changes } = readSheet(chart!).analysis;
    expect(changes.map(({ symbol, chord }) => [symbol, chord === null])).toEqual([
      ['C', false],
      ['Gqrt', true]
    ]);
  });

  it('has its key by its mode', () => {
    const key = (fifths: number, mode: string) =>
      readSheet(
        readMusicXml(
          score([{ chord: 'D', kind: 'minor' }], `<key><fifths>${fifths}</fifths><mode>${mode}</mode></key>`)
        ).chart!
      ).analysis.key;
    expect(key(0, 'dorian')).toMatchObject({ tonic: 'D', mode: 'dorian' });
    expect(key(-1, 'mixolydian')).toMatchObject({ tonic: 'C', mode: 'mixolydian' });
    expect(key(-4, 'lydian')).toMatchObject({ tonic: 'Db', mode: 'lydian' });
    expect(key(-2, 'minor')).toMatchObject({ tonic: 'G', mode: 'minor' });
    expect(key(3, 'phrygian')).toMatchObject({ tonic: 'C#', mode: 'phrygian' });
  });

  it('counts numerals from their key', () => {
    const numeral = (step: number, alter = 0) =>
      `<numeral><numeral-root>${step}</numeral-root>${alter ? `<numeral-alter>${alter}</numeral-alter>` : ''}</numeral>`;
    const text = score(
      [{ chord: 'X' }, { chord: 'Y', kind: 'dominant' }, { chord: 'Z' }],
      '<key><fifths>-3</fifths></key>'
    )
      .replace('<root><root-step>X</root-step></root>', numeral(1))
      .replace('<root><root-step>Y</root-step></root>', numeral(5))
      .replace('<root><root-step>Z</root-step></root>', numeral(7, -1));
    expect(formOf(readMusicXml(text).chart!)).toBe('Eb Bb7 Db');
  });

  it('is read sorted by time as well', () => {
    const byTime = FORM.replace('<score-partwise>', '<score-timewise>')
      .replace('</score-partwise>', '</score-timewise>')
      .replace('<part id="P1">', '')
      .replace('</part></score', '</score')
      .replaceAll(/(<measure number="\d">)/g, '$1<part id="P1">')
      .replaceAll('</measure>', '</part></measure>');
    expect(readMusicXml(byTime)).toEqual(readMusicXml(FORM));
  });
});

describe('a form that goes out', () => {
  const without = (xml: string) => xml.replace(/<miscellaneous>.*?<\/miscellaneous>/s, '');
  /** The chord of every half beat: one that goes on over a bar line may be said there once more. */
  const changesOf = (chart: string) =>
    readSheet(chart).form.changes.flatMap(({ symbol, beats }) =>
      Array.from({ length: 2 * beats }, () => symbol)
    );

  it.each([
    ['a repeat', '|: Fm7 | Bb7 :| Ebmaj7 | % |', 4],
    ['two endings', '|: Cm7 | F7 |1 Bbmaj7 | G7 :|2 Bbmaj7 | Bbmaj7 |', 6],
    ['two repeats', '|: Am | G :|: F | E7 :|', 4],
    ['a half bar held into the next', '|: Gm7 . C7 . | . . F . :| Dm7 |', 3],
    ['D.C. al Fine', '{start_of_grid}\n| F | Bb | Fine\n| Gm7 | C7 | D.C. al Fine\n{end_of_grid}', 4],
    [
      'D.S. al Coda',
      '{start_of_grid}\n| Dbmaj7 | Gb7 |\nSegno | Fm7 | Bb7 | To Coda\n| Ebm7 | Ab7 | D.S. al Coda\nCoda | Dbmaj7 | Db6 |\n{end_of_grid}',
      8
    ],
    ['a chart with nothing of the kind', '| Am7 D7 | Gmaj7 |', 2]
  ])('is written as it stands and comes back as it is played: %s', (_, chart, bars) => {
    const sheet = readSheet(chart);
    const xml = writeMusicXml({ title: '', chart, sheet, neck: STANDARD, voices: [] });
    expect(xml.match(/<measure /g)).toHaveLength(bars);
    const back = readMusicXml(without(xml));
    expect(changesOf(back.chart!)).toEqual(changesOf(chart));
  });

  it('is written out with a line, whose notes differ from pass to pass', () => {
    const chart = '|: Fm7 | Bb7 :|';
    const piece = { title: '', chart, sheet: readSheet(chart), neck: STANDARD };
    const xml = writeMusicXml({ ...piece, voices: [{ name: 'line: A', notes: [noteOf(0, 960, 68)] }] });
    expect(xml.match(/<measure /g)).toHaveLength(4);
    expect(xml).not.toContain('<repeat');
  });

  it('has no name twice in a score of several parts', () => {
    const chart = '| Fm7 | Bb7 |';
    const voices = ['line: A', 'line: B'].map((name) => ({
      name,
      notes: [noteOf(0, 960, 68), noteOf(960, 960, 65)]
    }));
    const xml = writeMusicXml({ title: '', chart, sheet: readSheet(chart), neck: STANDARD, voices });
    const names = [...xml.matchAll(/ id="([^"]+)"/g)].map(([, id]) => id!).filter((id) => id.startsWith('p'));
    expect(names).toHaveLength(4);
    expect(new Set(names).size).toBe(names.length);
  });
});
