/** What every way in is handed: how a take comes in, whichever way, everything after it is the same. */
import type { TakeData, WayIn } from '$lib/api/take';
import type { Rehearsal } from '../../stand/rehearsal.svelte';
import type { Workspace } from '../../chart/workspace.svelte';
import type { BesidePage } from '../beside-page.svelte';
import { frameOf, ownPart } from '../made-of';
import type { Notices } from '../notices.svelte';
import type { TakeShelf } from '../shelf.svelte';
import type { Trading } from '../trading.svelte';

export interface Room {
  readonly workspace: Workspace;
  readonly rehearsal: Rehearsal;
  readonly shelf: TakeShelf;
  readonly work: BesidePage;
  readonly trading: Trading;
  readonly notices: Notices;
}

/** A way in that goes on in time: it is begun by a press, and ended by one. */
export interface LiveWay {
  readonly isOn: boolean;
  begin(): Promise<void>;
  finish(): Promise<void>;
  /** Lets go of the input; what was not finished is lost. */
  close(): void;
}

/** What a take of now has, by its way in: the chart, the plan, the target line as it is meant. */
export const frameIn = ({ workspace }: Room, way: WayIn, tempo: number, start: number) =>
  frameOf(
    way,
    {
      source: workspace.document.source,
      plan: workspace.plan,
      targets: [...workspace.paths.targets.values()].map(({ change, cell }) => ({ change, midi: cell.midi }))
    },
    tempo,
    start
  );

/** A take with what the player's own hand played, as it is written on their neck. */
export const ownIn = ({ workspace }: Room, data: TakeData): TakeData => ownPart(data, workspace.neck.raised);
