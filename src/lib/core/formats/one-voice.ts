/** What a file has many of made into a line: one voice, two notes at once at most; the rest is told. */
import { counted } from '../theory/words';
import { endOf, ordered, type LineNote } from '../line/model';
import type { LeftOut } from './text/import';

/** Notes at once that a line has at most. */
const AT_ONCE = 2;
/** A part is chords, not a line, where more than this share of its beginnings have more notes, or run into each other. */
const MOST_CHORDS = 0.25;

export interface OneVoice {
  /** Null where the part is no line. */
  readonly notes: readonly LineNote[] | null;
  readonly left: readonly LeftOut[];
}

/** Makes a line of the notes of a part. */
export function oneVoice(part: string, all: readonly LineNote[]): OneVoice {
  const starts = new Map<number, LineNote[]>();
  for (const note of ordered(all)) starts.set(note.start, [...(starts.get(note.start) ?? []), note]);
  const groups = [...starts.values()];
  const full = groups.filter(({ length }) => length > AT_ONCE).length;
  const next = (i: number) => groups[i + 1]?.[0]!.start ?? Infinity;
  const over = groups.filter((group, i) => group.some((note) => endOf(note) > next(i))).length;
  if (groups.length === 0) return { notes: null, left: [] };
  if (Math.max(full, over) > MOST_CHORDS * groups.length) {
    const why =
      full >= over
        ? `has chords of three and more notes in ${counted(full, 'place')}; a line has two notes at once at most`
        : `has several voices that run through each other in ${counted(over, 'place')}; a line is one voice`;
    return { notes: null, left: [{ text: part, why }] };
  }
  const notes = groups.flatMap((group, i) =>
    group.slice(-AT_ONCE).map((note) => ({ ...note, length: Math.min(endOf(note), next(i)) - note.start }))
  );
  const left = [
    ...(full
      ? [
          {
            text: part,
            why: `three and more notes at once in ${counted(full, 'place')}: the two highest were taken`
          }
        ]
      : []),
    ...(over
      ? [
          {
            text: part,
            why: `notes that run into the next in ${counted(over, 'place')} were ended where it begins`
          }
        ]
      : [])
  ];
  return { notes, left };
}
