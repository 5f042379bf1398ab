import { describe, expect, it } from 'vitest';
import { exportRequest, importRequest } from '../../api/requests';
import { parse } from '../web/body';
import { answerExport } from './export';
import { answerImport } from './import';
import { refusal } from './testing';

const CHART = `{title: Slack Water}
{key: Cm}
{time: 4/4}
{start_of_grid}
| Cm7 | F7 | Bbmaj7 . Eb7 . | Dm7b5 G7b9 |
{end_of_grid}
`;
const NOTES = [
  { at: 0, beats: 0.5, string: 3, fret: 8 },
  { at: 0.5, beats: 0.5, string: 2, fret: 8, slide: true },
  { at: 1, beats: 0.3333, midi: 67, string: 2, fret: 8 },
  { at: 1.3333, beats: 0.3333, string: 2, fret: 6, slur: true },
  { at: 1.6667, beats: 0.3333, string: 3, fret: 8, ghost: true },
  { at: 3, beats: 2, string: 3, fret: 10, midi: 67, bend: { from: 65 }, release: { to: 65 }, vibrato: true },
  { at: 6, beats: 1, string: 4, fret: 8 },
  { at: 6, beats: 1, string: 3, fret: 8 }
];
const exported = (format: string, more: object = {}) =>
  answerExport(parse(exportRequest, { chart: CHART, line: { name: 'Ebb', notes: NOTES }, format, ...more }));
const imported = (input: object) => answerImport(parse(importRequest, input));
const timesOf = (notes: readonly { at: number; beats: number; midi: number }[]) =>
  notes.map(({ at, beats, midi }) => [at, beats, midi].map((value) => Number(value.toFixed(4))));

describe('files of a line', () => {
  const wanted = timesOf(imported({ base64: exported('musicxml').base64 }).lines![0]!.notes);

  it.each(['musicxml', 'midi', 'tab', 'csv'])(
    '%s comes back with every note, told apart by how it begins',
    (format) => {
      const file = exported(format);
      const back = imported({ base64: file.base64 });
      expect(back.lines!.map(({ name }) => name)).toEqual(['Ebb']);
      expect(timesOf(back.lines![0]!.notes)).toEqual(wanted);
      expect(back.chart).toContain(
        '| Cm7 | F7 | Bbmaj7 Eb7 | Dm7b5 G7b9 |'.replace(
          'Bbmaj7 Eb7',
          format === 'musicxml' ? 'Bbmaj7 . Eb7 .' : 'Bbmaj7 Eb7'
        )
      );
      expect(back.left).toEqual([]);
      // Text may come as text, too.
      if (format !== 'midi') {
        expect(imported({ text: Buffer.from(file.base64, 'base64').toString('utf8'), format })).toEqual(back);
      }
    }
  );

  it('keeps places and techniques where the format has them', () => {
    for (const format of ['musicxml', 'tab', 'csv']) {
      const [, slid, , slurred, ghost, bent] = imported({ base64: exported(format).base64 }).lines![0]!.notes;
      expect(slid).toMatchObject({ string: 2, fret: 8, slide: true });
      expect(slurred).toMatchObject({ string: 2, fret: 6, slur: true });
      expect(ghost).toMatchObject({ ghost: true });
      expect(bent).toMatchObject({
        midi: 67,
        fret: 10,
        bend: { from: 65 },
        release: { to: 65 },
        vibrato: true
      });
    }
  });

  it('takes the melody of the chart along, or the one that is given', () => {
    const withMelody = CHART.replace('{time', '{melody: G4:2 Eb4:2 | F4:4}\n{time');
    const file = answerExport(parse(exportRequest, { chart: withMelody, format: 'midi' }));
    expect(timesOf(imported({ base64: file.base64 }).melody!.notes)).toEqual([
      [0, 2, 67],
      [2, 2, 63],
      [4, 4, 65]
    ]);
    const given = exported('midi', { melody: { notes: [{ at: 4, beats: 1, midi: 72 }] } });
    expect(timesOf(imported({ base64: given.base64 }).melody!.notes)).toEqual([[4, 1, 72]]);
  });

  it('names the file after the chart', () => {
    expect(exported('tab')).toMatchObject({ name: 'Slack Water.txt', type: 'text/plain; charset=utf-8' });
    expect(Buffer.from(exported('tab').base64, 'base64').toString('utf8')).toMatch(
      /^e\|.*\nB\|.*\nG\|.*\nD\|.*\nA\|.*\nE\|/m
    );
  });

  it('writes a chart without a line, and the chart text as it is', () => {
    for (const format of ['musicxml', 'midi', 'tab', 'csv', 'chordpro']) {
      const { base64 } = answerExport(parse(exportRequest, { chart: CHART, format }));
      expect(imported({ base64 }).chart).toContain('Dm7b5 G7b9');
    }
    expect(
      Buffer.from(
        answerExport(parse(exportRequest, { chart: CHART, format: 'chordpro' })).base64,
        'base64'
      ).toString()
    ).toBe(CHART);
  });

  it('reads a tab that says no lengths, and says where its rhythm came from', () => {
    const tab = [
      'e|----------------|',
      'B|----8---6-------|',
      'G|8-------------8-|',
      'D|----------------|',
      'A|----------------|',
      'E|----------------|'
    ];
    const { lines, melody, chart, left } = imported({ text: tab.join('\n'), format: 'tab' });
    expect(chart).toBeUndefined();
    expect(melody).toBeUndefined();
    expect(lines![0]!.notes.map(({ at }) => at)).toEqual([0, 1, 2, 3.5]);
    expect(lines![0]!.notes.map(({ string, fret }) => `${string}:${fret}`)).toEqual([
      '3:8',
      '2:8',
      '2:6',
      '3:8'
    ]);
    expect(left.map(({ why }) => why).join(' ')).toMatch(/says no lengths.*There are no chord names/);
  });

  it('leaves chords over words a chart though a bar of tab stands among them', () => {
    const { chart, lines } = imported({ text: 'Am7   D7\nRow, row\ne|--5--|\nB|--5--|\nG|--5--|\n' });
    expect(chart).toContain('Am7');
    expect(lines).toBeUndefined();
  });

  it('reads a thousand bars within its bounds', () => {
    const long = `{time: 4/4}\n${'| Cm7 | F7 | Bbmaj7 | G7 |\n'.repeat(250)}`;
    const notes = Array.from({ length: 4000 }, (_, i) => ({ at: i, beats: 1, midi: 60 + (i % 12) }));
    for (const format of ['musicxml', 'midi', 'tab', 'csv']) {
      const { base64 } = answerExport(parse(exportRequest, { chart: long, line: { notes }, format }));
      expect(imported({ base64 }).lines![0]!.notes).toHaveLength(4000);
    }
  });

  it.each([
    [
      'bytes of nothing known',
      { base64: Buffer.from([137, 80, 78, 71, 0, 1]).toString('base64'), format: 'midi' },
      'not-readable'
    ],
    ['text that is no XML', { text: 'hello', format: 'musicxml' }, 'not-readable'],
    ['a table without its columns', { text: 'a,b\n1,2\n', format: 'csv' }, 'not-readable'],
    ['no tab', { text: 'hello', format: 'tab' }, 'not-readable'],
    ['both text and bytes', { text: 'a', base64: 'YQ==' }, 'bad-request'],
    ['neither', {}, 'bad-request'],
    ['no base64', { base64: '§' }, 'bad-request'],
    ['an unknown format', { text: 'a', format: 'pdf' }, 'bad-request'],
    ['a file that is too large', { text: 'a'.repeat(9 * 1024 * 1024), format: 'csv' }, 'file-too-large'],
    ['a pasted text that is too large', { text: '| C '.repeat(20_000) }, 'chart-too-large']
  ])('refuses %s with a sentence', (_, input, code) => {
    const { error } = refusal(() => imported(input));
    expect(error.code).toBe(code);
    expect(error.message.length).toBeGreaterThan(20);
  });

  it('refuses a line that is none, as the other routes do', () => {
    expect(refusal(() => exported('midi', { line: { notes: [{ at: 0, beats: 1 }] } })).error.code).toBe(
      'no-pitch'
    );
    expect(refusal(() => exported('pdf')).error.message).toContain('musicxml, midi, tab, csv, chordpro');
  });

  it('gives every chart of a table of them, also where it is larger than one chart may be', () => {
    const rows = Array.from({ length: 2000 }, (_, i) => `"Tune ${i}",Abm,"| Abm7 | Db7 | Gbmaj7 | Cbmaj7 |"`);
    const { charts } = imported({ text: ['title,key,chords', ...rows].join('\n') });
    expect(charts).toHaveLength(2000);
    expect(charts![1999]).toMatchObject({ row: 2001, title: 'Tune 1999' });
    expect(charts![1999]!.chart).toContain('{key: Abm}');
  });
});
