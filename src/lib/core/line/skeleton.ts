/** The skeleton line of a target path: it lands on every target, leaves it where there is time, approaches the next. */
import { firstOf, nth } from '../base/list';
import type { Midi } from '../base/units';
import type { Meter } from '../chart/model';
import type { Analysis } from '../harmony/analysis';
import type { NamedTone } from '../moment/moment';
import type { TargetPath } from '../targets/path';
import type { ApproachNotes } from './approach-notes';
import { ticksOf, written, type Line, type LineNote } from './model';

/** Beats between a landing and what comes next, from which on the landing is left for another tone. */
const ROOM_TO_LEAVE = 2;

/**
 * The line that lands on every target, leaves it for a chord tone under the hand where there is time, and approaches the
 * next. `tones` are the chord tones in reach of each change. Notes follow one another without overlap.
 */
export function skeletonLine(
  analysis: Analysis,
  meter: Meter,
  path: TargetPath,
  approaches: ApproachNotes,
  tones: readonly (readonly NamedTone[])[]
): Line {
  const form = analysis.changes.reduce((end, { start, beats }) => Math.max(end, start + beats), 0);
  const startOf = (change: number, beat: number) => nth(analysis.changes, change).start + beat - 1;
  const between = (tone: NamedTone, from: number, to: number, purpose: LineNote['purpose'] & string) =>
    written(tone, ticksOf(from), ticksOf(to) - ticksOf(from), purpose);
  const notes = path.targets.flatMap((target, i): LineNote[] => {
    const { change, beat, cell } = target;
    const start = startOf(change, beat);
    const next = path.targets[i + 1];
    const at = i + 1 < path.targets.length ? i + 1 : 0;
    const lead = approaches.get(at) ?? [];
    const nextStart = next ? startOf(next.change, next.beat) : form;
    const leadStart = lead[0] ? startOf(lead[0].change, lead[0].beat) : nextStart;
    const changeEnd = nth(analysis.changes, change).start + nth(analysis.changes, change).beats;
    // No note rings past its chord.
    const end = Math.min(leadStart, nextStart, changeEnd);
    const goal = lead[0]?.midi ?? next?.cell.midi ?? firstOf(path.targets).cell.midi;
    const left = end - start >= ROOM_TO_LEAVE ? leavingTone(tones[change] ?? [], cell, goal) : undefined;
    const landed = start + (left ? Math.ceil(end - start) / 2 : end - start);
    return [
      between(cell, start, landed, 'target'),
      ...(left ? [between(left, landed, end, 'leave')] : []),
      ...lead.map((note) => {
        const from = startOf(note.change, note.beat);
        return between(note, from, from + note.beats, 'approach');
      })
    ];
  });
  return { meter, notes };
}

/** The nearest other chord tone on the way to where the line goes next; on either side where it stays. */
function leavingTone(tones: readonly NamedTone[], from: { readonly midi: Midi }, goal: number) {
  const way = Math.sign(goal - from.midi);
  const others = tones.filter(({ midi }) => midi !== from.midi);
  const ahead = others.filter(({ midi }) => way === 0 || Math.sign(midi - from.midi) === way);
  return [...(ahead.length ? ahead : others)].sort(
    (a, b) => Math.abs(a.midi - from.midi) - Math.abs(b.midi - from.midi) || a.midi - b.midi
  )[0];
}
