/** What is typed at a place of a chart, written into its text. Source: docs/music-rules.md, Chart text. */
import * as edits from './edits';

/** Beats closer than this are one place. */
export const NEAR = 0.01;

/** Whether something that begins at a beat stands at a place of its bar. */
export const isAt = ({ beat }: { readonly beat: number }, place: number): boolean =>
  Math.abs(beat - place) < NEAR;

/**
 * A text with what is typed at a beat of a bar (both from 0): one chord, several that share its time, or signs for the whole bar. Behind the
 * last bar a new one is begun.
 */
export function typedInto(
  source: string,
  { bar, beat }: { readonly bar: number; readonly beat: number },
  typed: string
): string {
  const bars = edits.barsOf(source);
  const own = bars[bar];
  if (!own && !typed.trim()) return source;
  const grown = own ? source : edits.insertAfter(source, bars.length - 1, edits.emptyBars(1));
  const at = own ? bar : bars.length;
  const cells = edits.cellsIn(typed);
  const others = (own?.chords ?? []).filter((one) => !isAt(one, beat));
  const isOneChord = cells.length === 1 && cells[0]?.kind === 'chord';
  if (!isOneChord && (others.length === 0 || cells.some(({ kind }) => kind === 'repeat-bars')))
    return edits.writeCells(grown, at, cells);
  const room = (others.find((one) => one.beat > beat)?.beat ?? own?.meter.beats ?? 0) - beat;
  const chords = cells.flatMap((cell, i) =>
    cell.kind === 'chord' ? [{ symbol: cell.symbol, beat: beat + (i * room) / cells.length }] : []
  );
  return edits.writeChords(grown, at, [...others, ...chords]);
}
