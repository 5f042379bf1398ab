import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { logFromCsv, logToCsv, type WrittenRow } from './csv';

const ROW: WrittenRow = {
  id: 'x',
  day: '2026-03-05',
  startedAt: Date.parse('2026-03-05T18:00:00Z'),
  kind: 'rehearse',
  what: 'Ascending',
  title: 'Tow Rope',
  item: 'a:Gm:3:up',
  key: 'Gm',
  area: 3,
  tempo: 80,
  clean: false,
  rounds: 2,
  seconds: 60,
  note: ''
};

describe('the log as a table', () => {
  it('comes back as it went out, whatever stands in its words', () =>
    fc.assert(
      fc.property(
        fc.string({ maxLength: 20 }),
        fc.constantFrom(true, false, null),
        fc.option(fc.integer({ min: 30, max: 300 })),
        (note, clean, tempo) => {
          const row = { ...ROW, note: note.trim().replaceAll('\r', ''), clean, tempo };
          expect(logFromCsv(logToCsv([row, ROW]))).toEqual({ rows: [row, ROW], left: [] });
        }
      ),
      { numRuns: 100 }
    ));

  it('takes the good rows and tells the others line by line', () => {
    const { rows, left } = logFromCsv(
      'Day,Seconds,Tempo,Clean,Key\n2026-03-05,60,80,yes,Gm\nyesterday,60,,,\n2026-03-06,much,,,\n\n2026-03-07,30,900,,\n2026-03-07,30,,perhaps,\n2026-03-07,30,,,H\n2026-03-08,90,,,\n'
    );
    expect(rows.map(({ day, seconds, clean }) => [day, seconds, clean])).toEqual([
      ['2026-03-05', 60, true],
      ['2026-03-08', 90, null]
    ]);
    expect(left.map(({ line }) => line)).toEqual([3, 4, 6, 7, 8]);
    expect(left[0]!.why).toContain('“yesterday” is no day');
  });

  it('reads cells between semicolons or tabs as well', () => {
    for (const separator of [';', '\t']) {
      const lines = [
        'day,seconds,tempo,clean,note',
        '2026-03-05,60,80,yes,"slow, twice"',
        '2026-03-06,90,,no,'
      ];
      const text = lines.map((line) => line.replaceAll(/,(?! )/g, separator)).join('\r\n');
      expect(logFromCsv(text)).toMatchObject({
        rows: [
          { day: '2026-03-05', seconds: 60, tempo: 80, clean: true, note: 'slow, twice' },
          { day: '2026-03-06', seconds: 90, tempo: null, clean: false }
        ],
        left: []
      });
    }
  });

  it('says what is missing in a file that is no log, and never lets a spreadsheet reckon', () => {
    expect(logFromCsv('a,b\n1,2').left[0]!.why).toContain('“day” and “seconds”');
    expect(logFromCsv('').left).toHaveLength(1);
    expect(logToCsv([{ ...ROW, note: '=1+1' }])).toContain(",'=1+1");
  });
});
