/**
 * A table of charts, a row each, as spreadsheets keep them: a column with the chords, and any of title, key, time, tempo, feel and tags.
 * Fields are parted by commas, semicolons or tabs. Source: docs/music-rules.md, Files.
 */
import { firstOf, sure } from '../../base/list';
import { dsvFormat } from 'd3-dsv';
import { declared, directivesIn, withDeclaration } from '../../chart/directives';
import { NotReadable } from '../not-readable';
import { importText, type LeftOut } from '../text/import';

export interface ListedChart {
  /** Row of the table, counted from 1 with its head. */
  readonly row: number;
  readonly title: string;
  /** Null where there is no chord in it. */
  readonly chart: string | null;
  readonly left: readonly LeftOut[];
}

/** Charts of one table at most. */
const MOST_CHARTS = 5000;
const PARTING = [',', ';', '\t'];
/** What columns are called, in any case. */
const CHORDS = ['chords', 'chart', 'progression', 'changes'];
const FACTS: Readonly<Record<string, string>> = {
  title: 'title',
  name: 'title',
  tune: 'title',
  key: 'key',
  time: 'time',
  meter: 'time',
  tempo: 'tempo',
  bpm: 'tempo',
  feel: 'feel',
  style: 'feel',
  tags: 'tags'
};
/** The head of a table is its first line. */
const LONGEST_HEAD = 2000;

interface Head {
  readonly parting: string;
  readonly columns: readonly string[];
  readonly chords: number;
}

function headOf(text: string): Head | null {
  const first = firstOf(
    text
      .replace(/^\ufeff/, '')
      .slice(0, LONGEST_HEAD)
      .split(/\r\n|\r|\n/, 1)
  );
  for (const parting of PARTING) {
    const [row = []] = dsvFormat(parting).parseRows(first);
    const columns = row.map((name) => name.trim().toLowerCase());
    const chords = columns.findIndex((name) => CHORDS.includes(name));
    // A column of chords alone may be any list of words.
    if (chords >= 0 && columns.some((name) => name in FACTS)) return { parting, columns, chords };
  }
  return null;
}

/** Whether a text begins as a table of charts. */
export const isChartList = (text: string): boolean => headOf(text) !== null;

/** The charts of a table, in its order; throws `NotReadable` where it is none. */
export function readChartList(text: string): ListedChart[] {
  const head = headOf(text);
  if (!head)
    throw new NotReadable('The first row of a table of charts names a column title and a column chords.');
  const { parting, columns, chords } = head;
  const rows = dsvFormat(parting).parseRows(text.replace(/^\ufeff/, ''));
  if (rows.length - 1 > MOST_CHARTS)
    throw new NotReadable(`This table has more than ${MOST_CHARTS} charts; save a part of it.`);
  return rows.slice(1).flatMap((cells, i): ListedChart[] => {
    if (cells.every((cell) => cell.trim() === '')) return [];
    const { chart, left } = importText(cells[chords] ?? '');
    const facts = columns.flatMap((name, n) => {
      const value = cells[n]?.trim();
      return n !== chords && name in FACTS && value ? [[sure(FACTS[name], 'FACTS'), value] as const] : [];
    });
    const title = facts.find(([name]) => name === 'title')?.[1] ?? '';
    const own = chart === null ? [] : directivesIn(chart);
    // What the chords say of themselves goes before their row.
    const source = facts
      .filter(([name]) => declared(own, name) === null)
      .reverse()
      .reduce<string | null>((sum, [name, value]) => sum && withDeclaration(sum, name, plain(value)), chart);
    return [{ row: i + 2, title, chart: source, left }];
  });
}

/** A directive ends at a brace. */
const plain = (value: string) => value.replaceAll(/[{}]+/g, ' ');
