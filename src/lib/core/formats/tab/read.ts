/**
 * Tab in plain text read: rows of strings cut into bars. Where the lengths stand below the strings time is exact; else it is taken from
 * where the frets stand, and that is told. Source: docs/music-rules.md, Files.
 */
import { firstOf, nth, sure } from '../../base/list';
import type { Fret, StringNumber } from '../../base/units';
import type { Meter } from '../../chart/model';
import { DEFAULT_METER } from '../../chart/model';
import { readKey } from '../../harmony/key';
import { endOf, noteOf, TICKS, type LineNote } from '../../line/model';
import { quarterOf } from '../../line/notation';
import { readInstrument, soundAt, STANDARD, TUNINGS, type Instrument } from '../../neck/tuning';
import { isChord } from '../../theory/chord-reader';
import { midiName, midiOf } from '../../theory/note';
import { chartOf, type FoundBar, type FoundChord } from '../chart-of';
import { NotReadable } from '../not-readable';
import { oneVoice } from '../one-voice';
import { LINE, sorted, type ReadPiece, type Voice } from '../piece';
import type { LeftOut } from '../text/import';
import { stringNames, TAB_SIGNS } from './write';

/** A row of tab: the string's name, a bar line, what stands on it. */
const ROW = /^\s{0,4}([A-Ga-g][#b]?)\s?\|(.*)$/;
const FEWEST_ROWS = 3;
const LONGEST_ROW = 2000;
const MOST_BARS = 4000;
/** Fret with what comes before and behind it. */
const FRET = /([/\\shp])?(\(?\d{1,2}\)?)(b\d{0,2})?(r\d{0,2})?(~)?/g;
/** A length in beats with its sign, and names of notes without a place. */
const LENGTH = /^([rt=])?(\d{1,4})(?:\/(\d{1,4}))?((?:@[A-G]b?#?-?\d)*)$/;
/** Of the notes of a tab that says no lengths, in parts of a quarter. */
const GRID = 4;

interface Block {
  /** Line of the first string, counted from 0. */
  readonly line: number;
  readonly rows: readonly { readonly name: string; readonly text: string; readonly from: number }[];
  readonly above: string;
  readonly below: string;
}

/** True for a text that has rows of tab in it. */
export const isTab = (text: string): boolean => blocksOf(text.split(/\r\n|\r|\n/)).length > 0;

/** The voices of a tab, with the chords above it. Throws `NotReadable` where it holds no rows of tab. */
export function readTab(text: string): ReadPiece {
  const lines = text.split(/\r\n|\r|\n/);
  const blocks = blocksOf(lines);
  const first = blocks[0];
  if (!first) {
    throw new NotReadable(
      'There is no tab in this text; its rows begin with a string and a bar, such as e|--5--|.'
    );
  }
  const left: LeftOut[] = [];
  const head = lines.slice(0, first.line);
  const said = /\b(\d{1,2})\/(1|2|4|8|16)\b/.exec(head.join('\n'));
  const meter: Meter = said ? { beats: Number(said[1]), unit: Number(said[2]) } : DEFAULT_METER;
  const neck = instrumentOf(first, head, left);
  const parts = new Map<string, Part>();
  let name = `${LINE}tab`;
  let at = 0;
  for (const block of blocks) {
    // The name of a part stands in brackets somewhere above its first row.
    for (const line of lines.slice(at, block.line))
      name = /^\s*\[([^\]|]{1,120})\]\s*$/.exec(line)?.[1] ?? name;
    const pickup = lines
      .slice(at, block.line)
      .flatMap((line) => /^\s*pickup ([12])\s*$/.exec(line)?.[1] ?? [])
      .at(-1);
    at = block.line;
    const part: Part = parts.get(name) ?? {
      notes: [],
      chords: [],
      bars: [],
      end: 0,
      pickup: Number(pickup ?? 0),
      isGuessed: false
    };
    parts.set(name, part);
    readBlock(block, part, neck, meter, left);
  }
  for (const part of parts.values()) takeOffPickup(part);
  const guessed = [...parts].filter(([, part]) => part.isGuessed);
  for (const [own] of guessed) {
    left.push({
      text: own,
      why: 'says no lengths: its rhythm was taken from where the frets stand; look it over'
    });
  }
  const voices: Voice[] = [];
  for (const [own, { notes }] of parts) {
    const line = oneVoice(own, notes);
    left.push(...line.left);
    if (line.notes) voices.push({ name: own, notes: line.notes });
  }
  const facts = head.join('\n');
  const [, key = ''] = /^([A-G][#b]?(?: [a-z]+)?),/m.exec(facts) ?? [];
  const tempo = /(\d{2,3}) a minute/.exec(facts)?.[1];
  const withChords = [...parts.values()].find(({ chords }) => chords.length > 0);
  const title = head.find((line) => line.trim() && !/[[\]|]/.test(line))?.trim();
  const found = chartOf(
    {
      title: title?.slice(0, 120),
      key: readKey(key) ? key : undefined,
      tempo: tempo ? Number(tempo) : undefined,
      bars: withChords?.bars ?? [],
      chords: withChords?.chords ?? []
    },
    TICKS
  );
  const none =
    found.chart === null ? [{ text: title ?? '', why: 'There are no chord names above the tab.' }] : [];
  return { chart: found.chart, ...sorted(voices), left: [...left, ...found.left, ...none] };
}

/** What stands in bars before the first one has negative times. */
function takeOffPickup(part: Part): void {
  const before = part.bars.slice(0, part.pickup);
  if (before.length === 0) return;
  const lead = before.reduce((sum, { length }) => sum + length, 0);
  part.notes = part.notes.map((note) => ({ ...note, start: note.start - lead }));
  part.chords = part.chords.map((chord) => ({ ...chord, start: Math.max(0, chord.start - lead) }));
  part.bars = part.bars.slice(before.length).map((bar) => ({ ...bar, start: bar.start - lead }));
}

function blocksOf(lines: readonly string[]): Block[] {
  const blocks: Block[] = [];
  for (let i = 0; i < lines.length; i++) {
    const rows: Block['rows'][number][] = [];
    while (i + rows.length < lines.length) {
      const line = nth(lines, i + rows.length);
      const match = line.length <= LONGEST_ROW ? ROW.exec(line) : null;
      if (!match) break;
      rows.push({ name: nth(match, 1), text: nth(match, 2), from: line.length - nth(match, 2).length });
    }
    if (rows.length >= FEWEST_ROWS) {
      blocks.push({
        line: i,
        rows,
        above: lines[i - 1] ?? '',
        below: lines[i + rows.length] ?? ''
      });
    }
    i += rows.length;
  }
  return blocks;
}

/** The guitar whose strings have these names; the standard one where they are not known. */
function instrumentOf({ rows }: Block, head: readonly string[], left: LeftOut[]): Instrument {
  const capo = Number(/^capo (\d{1,2})$/m.exec(head.join('\n'))?.[1] ?? 0);
  const names = rows.map(({ name }) => name.toLowerCase()).join(' ');
  for (const tuning of Object.keys(TUNINGS)) {
    const neck = readInstrument({ tuning, capo });
    if (neck && stringNames(neck).join(' ').toLowerCase() === names) return neck;
  }
  left.push({
    text: rows.map(({ name }) => name).join(' '),
    why: 'is no tuning that is known here; the strings were taken as those of a guitar in standard tuning'
  });
  return STANDARD;
}

interface Part {
  notes: LineNote[];
  chords: FoundChord[];
  bars: FoundBar[];
  end: number;
  /** Bars that stand before the first one. */
  pickup: number;
  isGuessed: boolean;
}

interface Token {
  readonly column: number;
  readonly text: string;
}

const tokensOf = (line: string): Token[] =>
  [...line.matchAll(/\S+/g)].map((match) => ({ column: match.index, text: match[0] }));

/** A fret on a string, where it stands in the line. */
interface Touch {
  readonly column: number;
  readonly string: StringNumber;
  readonly fret: Fret;
  readonly how: Partial<LineNote>;
  readonly bend: number;
  readonly release: number | null;
}

function readBlock(block: Block, part: Part, neck: Instrument, meter: Meter, left: LeftOut[]): void {
  const touches = block.rows.flatMap(({ text, from }, i) => touchesOf(text, from, i + 1, neck));
  const lengths = tokensOf(block.below).filter(({ text }) => LENGTH.test(text));
  const hasLengths = lengths.length > 0 && lengths.length === tokensOf(block.below).length;
  const chords = tokensOf(block.above).filter(({ text }) => isChord(text));
  const { text, from } = firstOf(block.rows);
  let column = from;
  for (const bar of text.split('|')) {
    const [begin, end] = [column, column + bar.length];
    column = end + 1;
    if (!bar.includes('-') || part.bars.length >= MOST_BARS) continue;
    const isIn = (one: { readonly column: number }) => one.column >= begin && one.column < end;
    const start = part.end;
    const own = touches.filter(isIn);
    const length = hasLengths
      ? readEntries(lengths.filter(isIn), own, chords.filter(isIn), part, neck)
      : readSpaces(own, chords.filter(isIn), begin, end, part, neck, meter);
    if (length <= 0) {
      left.push({ line: block.line + 1, text: bar.slice(0, 80), why: 'a bar without a length' });
      continue;
    }
    const beats = length / TICKS;
    part.bars.push({ start, length, meter: Number.isInteger(beats) ? { ...meter, beats } : meter });
    part.end = start + length;
  }
}

/** Cents of a bend that is written without saying how far, and makes no new pitch. */
const CURL = 40;

function touchesOf(text: string, from: number, string: StringNumber, neck: Instrument): Touch[] {
  return [...text.matchAll(FRET)].flatMap((match): Touch[] => {
    const [, before = '', said = '', bent, released, shaken] = match;
    const fret = Number(said.replaceAll(/[()]/g, ''));
    if (fret > neck.frets || string > neck.strings.length) return [];
    const to = bent === undefined ? fret : Number(bent.slice(1) || fret + 2);
    const how: Partial<LineNote> = {
      ...(before === TAB_SIGNS.slide || before === TAB_SIGNS.slideDown || before === 's'
        ? { slide: true }
        : {}),
      ...(before === TAB_SIGNS.hammer || before === TAB_SIGNS.pull ? { slur: true } : {}),
      // Bent to where it is: by less than a fret.
      ...(bent !== undefined && to === fret
        ? { bend: { from: soundAt(neck, string, fret), cents: CURL } }
        : {}),
      ...(shaken ? { vibrato: true } : {}),
      ...(said.startsWith('(') ? { ghost: true } : {})
    };
    const back = released === undefined ? null : Number(released.slice(1) || fret);
    return [{ column: from + match.index, string, fret, how, bend: to - fret, release: back }];
  });
}

function noteAt(
  { string, fret, how, bend, release }: Touch,
  start: number,
  length: number,
  neck: Instrument
): LineNote {
  const fretted = soundAt(neck, string, fret);
  return {
    ...noteOf(start, length, fretted + bend),
    place: { string, fret },
    ...(bend > 0 ? { bend: { from: fretted } } : {}),
    ...(bend > 0 && release !== null ? { release: { to: fretted + release - fret } } : {}),
    ...how
  };
}

/** Beats of a note at most. */
const LONGEST_NOTE = 64;

/** A bar whose lengths stand below it; gives its own. */
function readEntries(
  lengths: readonly Token[],
  touches: readonly Touch[],
  chords: readonly Token[],
  part: Part,
  neck: Instrument
): number {
  let at = part.end;
  for (const { column, text } of lengths) {
    const [, sign, whole, parts, names = ''] = sure(LENGTH.exec(text), 'LENGTH');
    const beats = Number(whole) / Number(parts ?? 1);
    // A part of nothing, or a length that no bar has, is no length.
    const length = beats <= LONGEST_NOTE ? Math.round(beats * TICKS) : 0;
    const chord = chords.find((one) => one.column === column);
    if (chord) part.chords.push({ start: at, symbol: chord.text });
    const start = at;
    const lasts = endingAt(part.notes, start);
    if (sign === '=') {
      const longer = lasts.map((note) => ({ ...note, length: note.length + length }));
      if (lasts.length) part.notes.splice(-lasts.length, lasts.length, ...longer);
    } else if (sign === 't') {
      const wanted = lasts.filter(({ midi }) => names === '' || names.includes(`@${midiName(midi)}`));
      const tied = wanted.map(({ midi, note, place }): LineNote => {
        return { start, length, midi, note, ...(place ? { place } : {}), tie: true };
      });
      part.notes.push(...tied);
    } else if (sign !== 'r') {
      const placed = touches
        .filter((touch) => touch.column === column)
        .map((touch) => noteAt(touch, start, length, neck));
      const named = [...names.matchAll(/@([A-G]b?#?-?\d)/g)].flatMap(([, name = '']) => {
        const midi = midiOf(name);
        return midi === null ? [] : [noteOf(start, length, midi)];
      });
      part.notes.push(...[...placed, ...named].sort((a, b) => a.midi - b.midi));
    }
    at += length;
  }
  return at - part.end;
}

/** The last notes, which began together, where they end at a time. */
function endingAt(notes: readonly LineNote[], time: number): readonly LineNote[] {
  const last = notes.at(-1);
  if (!last || endOf(last) !== time) return [];
  const first = notes.findLastIndex(({ start }) => start !== last.start) + 1;
  return notes.slice(first);
}

/** A bar that says no lengths: frets stand in time as they stand in their row, each until the next. */
function readSpaces(
  touches: readonly Touch[],
  chords: readonly Token[],
  begin: number,
  end: number,
  part: Part,
  neck: Instrument,
  meter: Meter
): number {
  const length = meter.beats * TICKS;
  const step = quarterOf(meter) / GRID;
  // A bar of so many letters to the beat begins with its first; else there is one before it.
  const lead = (end - begin) % meter.beats === 0 ? 0 : 1;
  const timeOf = (column: number) => {
    const share = Math.max(0, column - begin - lead) / Math.max(1, end - begin - lead);
    return Math.min(length - step, Math.round((share * length) / step) * step);
  };
  part.isGuessed ||= touches.length > 0;
  const times = [...new Set(touches.map(({ column }) => timeOf(column)))].sort((a, b) => a - b);
  for (const touch of touches) {
    const time = timeOf(touch.column);
    const next = times.find((other) => other > time) ?? length;
    part.notes.push(noteAt(touch, part.end + time, next - time, neck));
  }
  part.notes.sort((a, b) => a.start - b.start || a.midi - b.midi);
  for (const { column, text } of chords) part.chords.push({ start: part.end + timeOf(column), symbol: text });
  return length;
}
