/** A chart and its lines as a table: a row for each bar, chord and note. Source: docs/music-rules.md, Files. */
import type { Ticks } from '../../base/units';
import { csvFormatRows } from 'd3-dsv';
import { beatsOf, ticksOf, type LineNote } from '../../line/model';
import { midiName } from '../../theory/note';
import type { Piece } from '../piece';

/** The columns, in their order; times are in beats of the chart's meter. */
export const COLUMNS = [
  'part',
  'at',
  'beats',
  'chord',
  'note',
  'midi',
  'string',
  'fret',
  'finger',
  'tie',
  'bend from',
  'bend cents',
  'release to',
  'slide',
  'slur',
  'vibrato',
  'ghost'
] as const;
export type Column = (typeof COLUMNS)[number];

/** Parts that are no lines. */
export const [FACT, BAR, CHORD] = ['chart', 'bar', 'chord'];

/** A piece as a table: a row for each bar, chord and note. */
export function writeCsv({ title, sheet, voices }: Piece): string {
  const { head, form, analysis } = sheet;
  const row = (cells: Partial<Record<Column, string | number>>) =>
    COLUMNS.map((column) => String(cells[column] ?? ''));
  const fact = (name: string, value: string | null) =>
    value ? [row({ part: FACT, chord: `${name}: ${value}` })] : [];
  return `${csvFormatRows([
    [...COLUMNS],
    ...fact('title', title),
    ...fact('key', `${analysis.key.tonic} ${analysis.key.mode}`),
    ...fact('tempo', head.tempo === null ? null : String(head.tempo)),
    ...form.bars.map(({ start, beats, meter }) =>
      row({ part: BAR, at: start, beats, chord: `${meter.beats}/${meter.unit}` })
    ),
    ...analysis.changes.map(({ start, beats, symbol }) =>
      row({ part: CHORD, at: start, beats, chord: symbol })
    ),
    ...voices.flatMap(({ name, notes }) => {
      const chordAt = (note: LineNote) =>
        analysis.changes.findLast(({ start }) => ticksOf(start) <= note.start)?.symbol ?? '';
      return notes.map((note) => row({ part: name, chord: chordAt(note), ...cellsOf(note) }));
    })
  ])}\n`;
}

/** A time in beats; one that a short number would be taken for a neighbour of is written with many decimals. */
function timeText(ticks: Ticks): string {
  const beats = beatsOf(ticks);
  return ticksOf(beats) === ticks ? String(beats) : beats.toFixed(7);
}

function cellsOf(note: LineNote): Partial<Record<Column, string | number>> {
  const { start, length, midi, place, tie, bend, release, slide, slur, vibrato, ghost } = note;
  const flag = (isOn: true | undefined) => (isOn ? 'yes' : '');
  return {
    at: timeText(start),
    beats: timeText(length),
    note: midiName(midi),
    midi,
    ...(place ? { string: place.string, fret: place.fret, finger: place.finger ?? '' } : {}),
    tie: flag(tie),
    'bend from': bend?.from ?? '',
    'bend cents': bend?.cents ?? '',
    'release to': release?.to ?? '',
    slide: flag(slide),
    slur: flag(slur),
    vibrato: flag(vibrato),
    ghost: flag(ghost)
  };
}
