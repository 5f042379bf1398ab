/** What a drill is, and what it is made from. */
import type { Area } from '../neck/area';
import type { Excerpt } from '../harmony/excerpt';
import type { NamedTone } from '../moment/moment';
import type { LineNote } from './model';

/** What a drill is made from: for every change of the excerpt its shape and its target. */
export interface DrillMaterial {
  readonly excerpt: Excerpt;
  /** By the place in the excerpt; null where nothing is played. */
  readonly areas: readonly (Area | null)[];
  readonly targets: readonly (NamedTone | null)[];
  /** Notes of the line of landing, leaving and approaching, in ticks of the excerpt. */
  readonly skeleton: readonly LineNote[];
  /** Notes in a beat of the chart's meter. */
  readonly perBeat: number;
  /** How often the excerpt has been played. */
  readonly round: number;
}

export interface Drill {
  readonly id: string;
  readonly name: string;
  readonly hint: string;
  /** The hand goes to a new position at each change. */
  readonly travels?: true;
  readonly play: (material: DrillMaterial) => LineNote[];
}
