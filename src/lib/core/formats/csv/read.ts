/** A table of bars, chords and notes read; the columns are those that are written, in any order. */
// Rows, not objects: for those the package makes a function of text, which the page's policy forbids.
import type { Beats, Midi } from '../../base/units';
import { csvParseRows } from 'd3-dsv';
import { DEFAULT_METER, type Meter } from '../../chart/model';
import { readMeter } from '../../chart/read';
import { noteOf, ticksOf, TICKS, type LineNote } from '../../line/model';
import { isChord } from '../../theory/chord-reader';
import { readKey } from '../../harmony/key';
import { chartOf, type FoundBar, type FoundChord } from '../chart-of';
import { NotReadable } from '../not-readable';
import { oneVoice } from '../one-voice';
import { sorted, type ReadPiece, type Voice } from '../piece';
import type { LeftOut } from '../text/import';
import { BAR, CHORD, FACT, type Column } from './write';

const MOST_ROWS = 50_000;
const NEEDED: readonly Column[] = ['part', 'at', 'beats'];
/** Beats that a chart goes on for at most. */
const LONGEST = 32_000;
/** Beats that a line may begin before the first bar. */
const MOST_LEAD = 48;

type Row = Partial<Record<Column, string>>;

/** The chords and notes of a table. Throws `NotReadable` where it is none of ours. */
export function readCsv(text: string): ReadPiece {
  const [columns = [], ...rows] = csvParseRows(text.replace(/^\ufeff/, ''));
  const missing = NEEDED.filter((column) => !columns.includes(column));
  if (missing.length) {
    throw new NotReadable(
      `This table has no column ${missing.join(', ')}; its first row has to name part, at and beats, and midi or string and fret, or chord.`
    );
  }
  if (rows.length > MOST_ROWS)
    throw new NotReadable(`This table has more than ${MOST_ROWS} rows; save a part of it.`);
  const left: LeftOut[] = [];
  const facts = new Map<string, string>();
  const bars: FoundBar[] = [];
  const chords: FoundChord[] = [];
  const parts = new Map<string, LineNote[]>();
  rows.forEach((given, i) => {
    const row: Row = Object.fromEntries(columns.map((column, n) => [column, given[n]]));
    const part = row.part?.trim() ?? '';
    const leave = (why: string) => left.push({ line: i + 2, text: given.join(',').slice(0, 80), why });
    if (part === FACT) {
      const [name = '', ...value] = (row.chord ?? '').split(':');
      facts.set(name.trim(), value.join(':').trim());
      return;
    }
    const [at, beats] = [numberIn(row.at), numberIn(row.beats)];
    // A line may begin before the first bar.
    const earliest = part === BAR || part === CHORD ? 0 : -MOST_LEAD;
    if (at === null || beats === null || at < earliest || at > LONGEST || beats <= 0 || beats > LONGEST) {
      leave('at and beats have to be numbers, beats above 0');
      return;
    }
    const [start, length] = [ticksIn(row.at!, at), ticksIn(row.beats!, beats)];
    if (part === BAR) bars.push({ start, length, meter: readMeter(row.chord ?? '') ?? DEFAULT_METER });
    else if (part === CHORD) {
      const symbol = row.chord?.trim() ?? '';
      if (isChord(symbol)) chords.push({ start, symbol });
      else leave('no chord symbol that is known here');
    } else {
      const note = noteIn(row, start, length);
      if (note) parts.set(part || 'line', [...(parts.get(part || 'line') ?? []), note]);
      else leave('midi has to be a number from 0 to 127');
    }
  });
  const voices: Voice[] = [];
  for (const [name, notes] of parts) {
    const line = oneVoice(name, notes);
    left.push(...line.left);
    if (line.notes) voices.push({ name, notes: line.notes });
  }
  const key = facts.get('key') ?? '';
  const found = chartOf(
    {
      title: facts.get('title'),
      key: readKey(key) ? key : undefined,
      tempo: Number(facts.get('tempo')) || undefined,
      bars: bars.length ? bars : barsUnder(chords),
      chords
    },
    TICKS
  );
  const none = found.chart === null ? [{ text: '', why: 'There is no row of a chord in it.' }] : [];
  return { chart: found.chart, ...sorted(voices), left: [...left, ...found.left, ...none] };
}

function numberIn(text: string | undefined): number | null {
  const value = text?.trim() ? Number(text) : NaN;
  return Number.isFinite(value) ? value : null;
}

/** A time with many decimals is exact; 0.33 is the triplet. */
const ticksIn = (text: string, beats: Beats) =>
  /\.\d{6,}/.test(text) ? Math.round(beats * TICKS) : ticksOf(beats);

const isPitch = (midi: Midi | null): midi is number =>
  midi !== null && Number.isInteger(midi) && midi >= 0 && midi <= 127;

function noteIn(row: Row, start: number, length: number): LineNote | null {
  const midi = numberIn(row.midi);
  if (!isPitch(midi)) return null;
  const [string, fret, finger] = [numberIn(row.string), numberIn(row.fret), numberIn(row.finger)];
  const [from, to] = [numberIn(row['bend from']), numberIn(row['release to'])];
  const cents = numberIn(row['bend cents']);
  const isCurl = cents !== null && Number.isInteger(cents) && cents > 0 && cents <= 50;
  const is = (column: Column) => /^(yes|true|1|x)$/i.test(row[column]?.trim() ?? '');
  return {
    ...noteOf(start, length, midi),
    ...(string !== null && fret !== null
      ? { place: { string, fret, ...(finger === null ? {} : { finger }) } }
      : {}),
    ...(is('tie') ? { tie: true } : {}),
    ...(isPitch(from) ? { bend: isCurl ? { from: midi, cents } : { from } } : {}),
    ...(isPitch(from) && isPitch(to) ? { release: { to } } : {}),
    ...(is('slide') ? { slide: true } : {}),
    ...(is('slur') ? { slur: true } : {}),
    ...(is('vibrato') ? { vibrato: true } : {}),
    ...(is('ghost') ? { ghost: true } : {})
  };
}

/** Bars of four under chords of a table that names none. */
function barsUnder(chords: readonly FoundChord[]): FoundBar[] {
  const meter: Meter = DEFAULT_METER;
  const length = meter.beats * TICKS;
  const count = Math.floor((chords.at(-1)?.start ?? 0) / length) + 1;
  return Array.from({ length: count }, (_, i) => ({ start: i * length, length, meter }));
}
