/** The formats that files have, as far as a page has to know them: what they are called and how their files are named. */
import { sure } from '../base/list';

export interface FormatFacts {
  readonly id: string;
  readonly name: string;
  readonly hint: string;
  readonly type: string;
  /** How the names of its files end; the first is given to new ones. */
  readonly endings: readonly [string, ...string[]];
  /** Files that end so are of this format whatever is left of what is in them; of others the text decides. */
  readonly isByName?: true;
}

export const FORMAT_FACTS = [
  {
    id: 'musicxml',
    name: 'MusicXML',
    hint: 'Staff, tab, chords and techniques, for notation programs',
    type: 'application/vnd.recordare.musicxml+xml',
    endings: ['musicxml', 'xml'],
    isByName: true
  },
  {
    id: 'mxl',
    name: 'Compressed MusicXML',
    hint: 'What notation programs save to share',
    type: 'application/vnd.recordare.musicxml',
    endings: ['mxl'],
    isByName: true
  },
  {
    id: 'midi',
    name: 'MIDI',
    hint: 'Notes in time, chord names as markers',
    type: 'audio/midi',
    endings: ['mid', 'midi'],
    isByName: true
  },
  {
    id: 'tab',
    name: 'Tab',
    hint: 'Plain text with the beats of every note',
    type: 'text/plain; charset=utf-8',
    endings: ['txt', 'tab']
  },
  {
    id: 'csv',
    name: 'CSV',
    hint: 'A table of chords and notes',
    type: 'text/csv; charset=utf-8',
    endings: ['csv', 'tsv']
  },
  {
    id: 'chordpro',
    name: 'Chart text',
    hint: 'The chart as it was typed',
    type: 'text/plain; charset=utf-8',
    endings: ['cho']
  },
  {
    id: 'inline',
    name: 'ChordPro, chords in brackets',
    hint: 'For programs that do not read grids: the form written out',
    type: 'text/plain; charset=utf-8',
    endings: ['pro']
  },
  {
    id: 'text',
    name: 'Text',
    hint: 'Chords as people paste them',
    type: 'text/plain; charset=utf-8',
    endings: ['txt']
  }
] as const satisfies readonly FormatFacts[];

export type FormatId = (typeof FORMAT_FACTS)[number]['id'];

/** What is known of a format. */
export const factsOf = (id: FormatId): FormatFacts =>
  sure(
    FORMAT_FACTS.find((facts) => facts.id === id),
    id
  );

/** The ends of the names of files of some formats, as a file chooser is told them. */
export const acceptOf = (ids: readonly FormatId[]): string =>
  [...new Set(ids.flatMap((id) => factsOf(id).endings))].map((ending) => `.${ending}`).join(',');
