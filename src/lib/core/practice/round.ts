/** One round of practice put together: the excerpt, the band and the drill over it. */
import { DEGREES } from '../theory/degree';
import type { Analysis } from '../harmony/analysis';
import type { LineNote } from '../moment/approach-notes';
import type { NamedTone } from '../moment/moment';
import type { Area } from '../neck/area';
import { bandEvents } from './band';
import { type Drill, type DrillMaterial, type DrillNote } from './drill';
import type { SoundEvent } from './events';
import type { Excerpt } from './excerpt';
import type { Feel } from './feel';

/** What a plan gives to a round, by the changes of the whole chart. */
export interface PlanMaterial {
  readonly analysis: Analysis;
  readonly areas: readonly (Area | null)[];
  readonly targets: ReadonlyMap<number, { readonly cell: NamedTone }>;
  /** In beats of the form. */
  readonly line: readonly LineNote[];
  /** The areas of a change up the neck, for a hand that travels. */
  readonly areasUp: (change: number) => readonly Area[];
}

export interface PracticeRound {
  readonly excerpt: Excerpt;
  readonly notes: readonly DrillNote[];
  readonly events: readonly SoundEvent[];
}

/** How loud the notes of a drill are: landings stand out. */
const LOUDNESS: Readonly<Record<DrillNote['role'], number>> = { land: 0.9, run: 0.65, approach: 0.75 };

export function practiceRound(
  plan: PlanMaterial,
  excerpt: Excerpt,
  feel: Feel,
  drill: Drill | null,
  perBeat: number
): PracticeRound {
  const notes = drill ? drill.play(materialFor(plan, excerpt, feel, drill, perBeat)) : [];
  const line = notes.map(({ start, beats, midi, role }): SoundEvent => ({
    part: 'line',
    start,
    beats,
    midi,
    velocity: LOUDNESS[role]
  }));
  const events = [...bandEvents(excerpt, feel), ...line].sort((a, b) => a.start - b.start);
  return { excerpt, notes, events };
}

function materialFor(
  plan: PlanMaterial,
  excerpt: Excerpt,
  feel: Feel,
  { travels }: Drill,
  perBeat: number
): DrillMaterial {
  const { changes } = excerpt;
  const areas = changes.map(({ source }, at) =>
    travels ? upAndBack(plan.areasUp(source.index), at) : (plan.areas[source.index] ?? null)
  );
  const targets = changes.map(({ source }, at): NamedTone | null => {
    const cell = plan.targets.get(source.index)?.cell ?? null;
    const area = areas[at];
    return travels && cell && area ? sameDegreeIn(area, cell) : cell;
  });
  const line = changes.flatMap(({ source, start, beats }) =>
    plan.line
      .filter(({ change }) => change === source.index)
      .map((note) => ({ ...note, start: note.start - source.start + start }))
      .filter((note) => note.start >= start && note.start + note.beats <= start + beats + 1e-9)
  );
  return { excerpt, areas, targets, line, perBeat, swing: feel.swing };
}

/** One area further at each change, up the neck and back down. */
function upAndBack(areas: readonly Area[], at: number): Area | null {
  if (areas.length === 0) return null;
  const period = Math.max(1, 2 * (areas.length - 1));
  const step = at % period;
  return areas[step < areas.length ? step : period - step]!;
}

/** The target's degree in another area, nearest its pitch; the lowest cell where the area has none. */
function sameDegreeIn(area: Area, target: NamedTone): NamedTone | null {
  const slot = DEGREES[target.degree].slot;
  const alike = area.cells.filter(
    ({ degree }) => degree === target.degree || (slot !== 'tension' && DEGREES[degree].slot === slot)
  );
  return (
    [...alike].sort((a, b) => Math.abs(a.midi - target.midi) - Math.abs(b.midi - target.midi))[0] ??
    area.cells[0] ??
    null
  );
}
