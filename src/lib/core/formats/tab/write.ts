/**
 * A line as tab in plain text: chord names above, a row for each string, the length of every note and rest in beats below, so that it
 * can be played, and read back, without a staff. Source: docs/music-rules.md, Files.
 */
import { firstOf, lastOf, nth, sure } from '../../base/list';
import type { Ticks } from '../../base/units';
import { midiName } from '../../theory/note';
import { fractionOf, ticksOf, type LineNote } from '../../line/model';
import { writtenBars, type Piece as WrittenPiece, type WrittenBar } from '../../line/notation';
import { linksOf, type Link } from '../../line/links';
import type { Instrument } from '../../neck/tuning';
import type { Piece } from '../piece';

/** Letters of a row; bars that do not fit begin a new one. */
const WIDTH = 100;
/** A bar is so many letters wide at least. */
const LEAST = 8;

/** What a tab that is written here says of itself. */
export const HOW_TO_READ = 'Below the strings: beats of each note, r for a rest.';

/** Signs before a fret: how it comes from the note before; behind it: how it is played. */
export const TAB_SIGNS = {
  slide: '/',
  slideDown: '\\',
  hammer: 'h',
  pull: 'p',
  bend: 'b',
  release: 'r',
  vibrato: '~'
};

/** Names of the strings as tab has them, string 1 first: the highest of two that share a name is written small. */
export function stringNames({ strings }: Pick<Instrument, 'strings'>): string[] {
  const names = strings.map((midi) => midiName(midi).replace(/-?\d+$/, ''));
  const isTwice = names.indexOf(firstOf(names)) !== names.lastIndexOf(firstOf(names));
  return names.map((name, i) => (i === 0 && isTwice ? name.toLowerCase() : name));
}

/** A piece as plain text: a tab for each voice, with the beats of every note beneath. */
export function writeTab({ title, sheet, neck, voices }: Piece): string {
  const { head, analysis } = sheet;
  const facts = [
    title,
    `${analysis.key.tonic} ${analysis.key.mode}, ${head.meter.beats}/${head.meter.unit}${head.tempo ? `, ${head.tempo} a minute` : ''}`,
    ...(neck.capo ? [`capo ${neck.capo}`] : []),
    HOW_TO_READ
  ].filter(Boolean);
  const over: Over = {
    neck,
    chords: analysis.changes.map(({ start, symbol }) => ({ start: ticksOf(start), symbol }))
  };
  const parts = (voices.length ? voices : [{ name: 'line: ', notes: [] }]).map(({ name, notes }) => {
    const links = linksOf(notes);
    const bars = writtenBars(notes, sheet.form.bars, head.meter).map((bar) =>
      writeBar(bar, notes, links, over)
    );
    return [`[${name}]`, ...pickupOf(notes, sheet), '', ...rowsOf(bars, neck)].join('\n');
  });
  return `${facts.join('\n')}\n\n${parts.join('\n')}`;
}

/** What says that bars stand before the first one. */
function pickupOf(notes: readonly LineNote[], { form, head }: Piece['sheet']): string[] {
  const bars = writtenBars(notes, form.bars, head.meter).filter(({ start }) => start < 0).length;
  return bars > 0 ? [`pickup ${bars}`] : [];
}

interface Over {
  readonly neck: Instrument;
  readonly chords: readonly { readonly start: number; readonly symbol: string }[];
}

/** A bar as letters: chords, strings, lengths, all equally wide. */
interface Letters {
  readonly chords: string;
  readonly strings: readonly string[];
  readonly beats: string;
}

/** How an entry goes on from the one before it: struck, a rest, tied on purpose, or only held over a bar or a chord. */
type EntrySign = '' | 'r' | 't' | '=';

/** Pieces of one note are one entry of the tab. */
interface Entry {
  readonly start: number;
  readonly length: number;
  readonly notes: readonly number[];
  readonly sign: EntrySign;
}

/** Entries of a bar; each chord begins with one. */
function entriesOf(pieces: readonly WrittenPiece[], chords: Over['chords']): Entry[] {
  const entries: Entry[] = [];
  for (const { start, length, notes, isTied, isFirst } of pieces) {
    const last = entries.at(-1);
    const isRest = notes.length === 0;
    const goesOn = last && (isRest ? last.notes.length === 0 : isTied && !isFirst && last.notes === notes);
    if (goesOn) entries[entries.length - 1] = { ...last, length: last.length + length };
    else entries.push({ start, length, notes, sign: isRest ? 'r' : isFirst ? (isTied ? 't' : '') : '=' });
  }
  return entries.flatMap((entry) => {
    const { start, length } = entry;
    const inside = chords.map((chord) => chord.start).filter((at) => at > start && at < start + length);
    return [start, ...inside].map((from, i): Entry => {
      const to = inside[i] ?? start + length;
      const sign = i === 0 || entry.sign === 'r' ? entry.sign : '=';
      return { ...entry, start: from, length: to - from, sign };
    });
  });
}

/** A length in beats: "1", "1/2", "3/2", "1/3". */
function beatsText(ticks: Ticks): string {
  const { above, below } = fractionOf(ticks);
  return below === 1 ? String(above) : `${above}/${below}`;
}

function writeBar(bar: WrittenBar, notes: readonly LineNote[], links: readonly Link[], over: Over): Letters {
  const { neck } = over;
  const end = bar.start + bar.length;
  const chords = over.chords.filter(({ start }) => start >= bar.start && start < end);
  const columns = entriesOf(bar.pieces, chords).map(({ start, length, notes: own, sign }) => {
    const struck = sign === '' ? own : [];
    const frets = neck.strings.map((_, i) => {
      const index = struck.find((one) => nth(notes, one).place?.string === i + 1);
      return index === undefined ? '' : fretText(index, notes, links);
    });
    // What has no place yet is named, and of two notes the one that is tied.
    const tied = sign === 't' ? own.map((index) => nth(notes, index)) : [];
    const isPart = own[0] !== undefined && tied.length !== nth(links, own[0]).before;
    const unplaced = struck.map((index) => nth(notes, index)).filter(({ place }) => !place);
    const named = [...unplaced, ...(isPart ? tied : [])];
    const names = named.map(({ midi }) => `@${midiName(midi)}`);
    const chord = chords.find((one) => one.start === start)?.symbol ?? '';
    return { frets, chord, beats: `${sign}${beatsText(length)}${names.join('')}` };
  });
  const widths = columns.map(({ frets, beats, chord }, i) => {
    const own = Math.max(beats.length, ...frets.map(({ length }) => length), chord.length);
    return i === columns.length - 1 ? Math.max(own, LEAST - (columns.length - 1)) : own;
  });
  const row = (text: (column: (typeof columns)[number]) => string, fill: string) =>
    fill + columns.map((column, i) => text(column).padEnd(nth(widths, i) + 1, fill)).join('');
  return {
    chords: row(({ chord }) => chord, ' '),
    strings: neck.strings.map((_, s) => row(({ frets }) => nth(frets, s), '-')),
    beats: row(({ beats }) => beats, ' ')
  };
}

function fretText(index: number, notes: readonly LineNote[], links: readonly Link[]): string {
  const { place, midi, bend, release, slide, slur, vibrato, ghost } = nth(notes, index);
  const { from } = nth(links, index);
  const isDown = from !== null && nth(notes, from).midi > midi;
  const at = sure(place, 'the place of a note on the tab').fret;
  const fret = String(at);
  return [
    slide ? (isDown ? TAB_SIGNS.slideDown : TAB_SIGNS.slide) : '',
    slur ? (isDown ? TAB_SIGNS.pull : TAB_SIGNS.hammer) : '',
    ghost ? `(${fret})` : fret,
    // A curl is bent by less than a fret: to where it already is.
    bend ? `${TAB_SIGNS.bend}${at + midi - bend.from}` : '',
    bend && release ? `${TAB_SIGNS.release}${at + release.to - bend.from}` : '',
    vibrato ? TAB_SIGNS.vibrato : ''
  ].join('');
}

/** Rows of as many bars as fit beside each other. */
function rowsOf(bars: readonly Letters[], neck: Instrument): string[] {
  const names = stringNames(neck);
  const margin = Math.max(...names.map(({ length }) => length));
  const rows: Letters[][] = [];
  let width = Infinity;
  for (const bar of bars) {
    width += bar.beats.length + 1;
    if (width > WIDTH) {
      rows.push([]);
      width = margin + 1 + bar.beats.length;
    }
    lastOf(rows).push(bar);
  }
  return rows.flatMap((row) => [
    `${' '.repeat(margin + 1)}${row.map(({ chords }) => chords).join(' ')}`.trimEnd(),
    ...names.map((name, s) => {
      const fill = '-'.repeat(margin - name.length);
      return `${name}|${fill}${row.map(({ strings }) => strings[s]).join('|')}|`;
    }),
    `${' '.repeat(margin + 1)}${row.map(({ beats }) => beats).join(' ')}`.trimEnd(),
    ''
  ]);
}
