import { inKey, keyText } from './key';
import { cadenceTitle } from './cadence-model';
import { romanText } from './numeral';
/** Test data from outside: chord spellings counted by hand rules, progressions read by a musician. */
import { readChord } from '../theory/chord-reader';
import { readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { transposeText } from '../chart/transpose';
import { pitchClass } from '../theory/note';
import { readSheet } from './sheet';

function table(name: string): string[][] {
  const text = readFileSync(new URL(`../../../../tests/data/${name}.tsv`, import.meta.url), 'utf8');
  return text
    .trim()
    .split('\n')
    .slice(1)
    .map((line) => line.split('\t'));
}

describe('chord spellings', () => {
  const rows = table('chords');
  it('are at least 800', () => expect(rows.length).toBeGreaterThanOrEqual(800));
  it('are read and spelled as in the table', () => {
    for (const [symbol, degrees, notes] of rows) {
      const reading = readChord(symbol!);
      const said =
        reading.kind === 'chord'
          ? [reading.chord.tones.join(' '), reading.chord.notes.join(' ')]
          : [reading.kind, ''];
      expect.soft(said, symbol).toEqual([degrees, notes ?? '']);
    }
  });
});

describe('progressions', () => {
  const rows = table('progressions');
  const name = keyText;
  it('are at least 120, in all styles', () => expect(rows.length).toBeGreaterThanOrEqual(120));
  it.each(rows)('%s', (chart, key, numerals, cadences = '') => {
    const text = chart!.replace(/^(\{[^}]*\})\s*/, '$1\n');
    const { analysis } = readSheet(text);
    const said = analysis.changes.map(
      (c) => (c.numeral ? romanText(c.numeral) : null) + (name(c.key) === key ? '' : `@${name(c.key)}`)
    );
    expect(`${name(analysis.key)}: ${said.join(' ')}`).toBe(`${key}: ${numerals}`);
    const titles = analysis.cadences.map(cadenceTitle);
    for (const cadence of cadences.split(',').filter(Boolean)) expect(titles).toContain(cadence);
  });
});

/** A chart as the tables write it: directives before it on one line, sections by their names in brackets. */
function chartOf(text: string): string {
  const [, head = '', bars = ''] = /^((?:\{[^}]*\}\s*)*)(.*)$/.exec(text)!;
  const [first, ...sections] = bars.split(/\[([^\]]*)\]/);
  const grids = sections.flatMap((part, i) =>
    i % 2 === 0 ? [`{start_of_grid label="${part}"}\n${sections[i + 1]!.trim()}\n{end_of_grid}`] : []
  );
  return [head.trim(), first!.trim(), ...grids].filter(Boolean).join('\n');
}
/** The home key, and the keys of the moment in runs: "C: C*8 Eb*8". */
function regionsOf(text: string): string {
  const { analysis } = readSheet(text);
  const runs: { key: string; count: number }[] = [];
  for (const { key } of analysis.changes) {
    const said = keyText(key);
    const last = runs.at(-1);
    if (last?.key === said) last.count++;
    else runs.push({ key: said, count: 1 });
  }
  return `${keyText(analysis.key)}: ${runs.map(({ key, count }) => `${key}*${count}`).join(' ')}`;
}
/** The same with numbers for note names, which another spelling does not touch. */
const counted = (regions: string, up: number) =>
  regions.replaceAll(/\b[A-G][b#]?(?=[m *:])/g, (note) => String((pitchClass(note) + up) % 12));

describe('forms that change their key', () => {
  const rows = table('forms');
  it('are at least 60, in all styles', () => expect(rows.length).toBeGreaterThanOrEqual(60));
  it.each(rows)('%s', (chart, key, regions) => {
    const said = regionsOf(chartOf(chart!));
    // Where a form only wanders, no key is more its home than another.
    expect(key === '-' ? said.replace(/^\S+(?= \S)[^:]*:|^[^:]*:/, '-:') : said).toBe(`${key}: ${regions}`);
  });

  it('are heard alike in all twelve keys', () => {
    rows.forEach(([chart], i) => {
      const text = chartOf(chart!);
      // Each form in three other keys, all eleven among them.
      for (const up of [1 + (i % 11), 1 + ((i + 4) % 11), 1 + ((i + 7) % 11)])
        expect(
          counted(regionsOf(transposeText(text, readSheet(text).analysis.key, up)), 0),
          `${chart} up ${up}`
        ).toBe(counted(regionsOf(text), up));
    });
  });

  it('are heard no worse where a section is named at the place of the change', () => {
    for (const [chart, , regions] of rows) {
      const text = chartOf(chart!);
      const parts = regions!.split(' ').filter((one) => one.includes('*'));
      // Only where the parts are whole bars of one chord each, and no section is named already.
      if (chart!.includes('[') || chart!.includes('{') || parts.length !== 2 || /\w \w/.test(chart!))
        continue;
      const first = Number(parts[0]!.split('*')[1]);
      const bars = text.split('|').filter((bar) => bar.trim());
      const named = `[A] |${bars.slice(0, first).join('|')}| [B] |${bars.slice(first).join('|')}|`;
      expect(regionsOf(chartOf(named)).split(': ')[1], named).toBe(regions);
    }
  });

  const HALVES = [
    '| C | Am | F | G | C | Am | F | G |',
    '| Ebmaj7 | Cm7 | Fm7 | Bb7 | Ebmaj7 | Cm7 | Fm7 | Bb7 |',
    '| F#m | D | A | E | F#m | D | A | E |',
    '| Bbm7 | Eb7 | Abmaj7 | Fm7 | Bbm7 | Eb7 | Abmaj7 | Abmaj7 |',
    '| A | D | E | A | A | D | E | A |'
  ];
  it('have each half’s own reading where two charts are put together', () => {
    for (const one of HALVES)
      for (const other of HALVES) {
        if (one === other) continue;
        const both = readSheet(chartOf(`[A] ${one} [B] ${other}`)).analysis;
        const alone = [one, other].map((text) => readSheet(text).analysis);
        // Two halves that share a key's notes are one region of it.
        const a = alone[0]!.key;
        if (alone[1]!.changes.every(({ chord }) => inKey(chord!, a))) continue;
        const said = ({ changes }: typeof both, from = 0, to = changes.length) =>
          changes.slice(from, to).map(({ numeral, key }) => `${romanText(numeral!)}@${keyText(key)}`);
        const [first, second] = [said(both, 0, 8), said(both, 8)];
        // The last chord of the first half may lead into the second.
        expect(first.slice(0, 7), `${one} ${other}`).toEqual(said(alone[0]!).slice(0, 7));
        expect(second.slice(0, 7), `${one} ${other}`).toEqual(said(alone[1]!).slice(0, 7));
      }
  });
});
