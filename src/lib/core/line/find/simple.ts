/** The thinnest lines: the targets alone, and the targets led in. */
import { nth } from '../../base/list';
import { endOf, ticksOf, written, type LineNote } from '../model';
import type { TargetPath } from '../../targets/path';
import type { ApproachNotes } from '../approach-notes';
import { leadsOf, startOf, type FindWish, type FoundLine, type Stretch } from './find';

/** The targets of a range, each held until the next or to the end of its chord, with what leads into them. */
export function targetsAlone(
  wish: Pick<FindWish, 'ground' | 'from' | 'to'>,
  stretches: readonly Stretch[],
  path: TargetPath,
  approaches: ApproachNotes
): FoundLine {
  const { ground, from, to } = wish;
  const { changes } = ground.form;
  const isWithin = (change: number) => change >= from && change <= to;
  const leads = leadsOf({ approaches, ground }, stretches).map(({ start, length, cell }): LineNote =>
    written(cell, start, length, 'approach')
  );
  const starts = path.targets.map((target) => startOf(target, changes));
  const moments = [...starts, ...leads.map(({ start }) => start)].sort((a, b) => a - b);
  const landings = path.targets.flatMap((target, i): LineNote[] => {
    if (!isWithin(target.change)) return [];
    const { start, beats } = nth(changes, target.change);
    const end = Math.min(ticksOf(start + beats), moments.find((at) => at > nth(starts, i)) ?? Infinity);
    return [written(target.cell, nth(starts, i), end - nth(starts, i), 'target')];
  });
  const notes = [...landings, ...leads].sort((a, b) => a.start - b.start);
  return { notes: notes.filter((note) => endOf(note) > note.start), cost: path.cost, parts: {}, exact: true };
}
