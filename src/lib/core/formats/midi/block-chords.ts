/** Chords read from a track that plays them: notes that begin together, named. */
import type { LineNote } from '../../line/model';
import { TICKS } from '../../line/model';
import { nameOfNotes } from '../../theory/chord-namer';
import type { FoundChord } from '../chart-of';

/** Notes that begin this near are one stroke, in ticks. */
const TOGETHER = TICKS / 8;
/** Different tones that a chord has at least. */
const FEWEST_TONES = 3;
/** A track plays chords where this share of its strokes have a name. */
const SHARE = 0.6;

export interface BlockChords {
  readonly chords: readonly FoundChord[];
  /** Strokes of three and more tones that have no name. */
  readonly nameless: number;
}

/** The chords of a track; null where it does not play chords. A chord that is struck again is one chord. */
export function blockChords(notes: readonly LineNote[]): BlockChords | null {
  const strokes = strokesOf(notes);
  const full = strokes.filter(({ midis }) => new Set(midis.map((midi) => midi % 12)).size >= FEWEST_TONES);
  const named = full.flatMap(({ start, midis }): FoundChord[] => {
    const symbol = nameOfNotes(midis);
    return symbol === null ? [] : [{ start, symbol }];
  });
  if (named.length === 0 || named.length < SHARE * strokes.length) return null;
  const chords = named.filter(({ symbol }, i) => symbol !== named[i - 1]?.symbol);
  return { chords, nameless: full.length - named.length };
}

function strokesOf(notes: readonly LineNote[]): { readonly start: number; readonly midis: number[] }[] {
  const strokes: { start: number; midis: number[] }[] = [];
  for (const { start, midi } of [...notes].sort((a, b) => a.start - b.start)) {
    const last = strokes.at(-1);
    if (last && start - last.start <= TOGETHER) last.midis.push(midi);
    else strokes.push({ start, midis: [midi] });
  }
  return strokes;
}
