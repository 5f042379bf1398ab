/** What joins the notes of a line: what each is slid, slurred or tied from, and when it ends. */
import { firstOf, nth } from '../base/list';
import type { Ticks } from '../base/units';
import { endOf, type LineNote } from './model';

/** What a note has to do with those around it, by their places in the line. */
export interface Link {
  /** When it stops sounding: with its own end, or where the next one begins. */
  readonly end: Ticks;
  /** The note that it is slid or slurred from, and the one that is out of it. */
  readonly from: number | null;
  readonly to: number | null;
  /** Notes that sound together before it. */
  readonly before: number;
  /** The next note of its pitch goes on from it without being struck. */
  readonly isTiedOn: boolean;
}

/** The links of every note of a line, which are in the order of a line. */
export function linksOf(notes: readonly LineNote[]): Link[] {
  const groups: number[][] = [];
  notes.forEach(({ start }, i) => {
    const last = groups.at(-1);
    if (last && nth(notes, firstOf(last)).start === start) last.push(i);
    else groups.push([i]);
  });
  /** Of two notes before, the one on the same string. */
  const before = (index: number, group: readonly number[]) =>
    group.find((i) => nth(notes, i).place?.string === nth(notes, index).place?.string) ?? group[0] ?? null;
  return groups.flatMap((group, g) => {
    const next = groups[g + 1] ?? [];
    const nextStart = next.length ? nth(notes, firstOf(next)).start : Infinity;
    return group.map((index): Link => {
      const note = nth(notes, index);
      const to = next.find((i) => (nth(notes, i).slide || nth(notes, i).slur) && before(i, group) === index);
      return {
        end: Math.min(endOf(note), nextStart),
        from: before(index, groups[g - 1] ?? []),
        before: groups[g - 1]?.length ?? 0,
        to: to ?? null,
        isTiedOn: next.some(
          (i) => nth(notes, i).tie === true && nth(notes, i).midi === note.midi && nextStart === endOf(note)
        )
      };
    });
  });
}
