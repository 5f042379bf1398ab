/** What a view of a chart is, and what it is given. */
import type { Component } from 'svelte';
import type { Workspace } from '$lib/state/chart/workspace.svelte';
import type { Part } from './app/part';

export interface ViewProps {
  readonly workspace: Workspace;
  readonly page: PageActions;
}

/** What a view can ask of the page around it. */
export interface PageActions {
  /** Prints a sheet by its id. */
  readonly print: (sheet: string) => void;
  /** Opens the tuner. */
  readonly tune: () => void;
}

export interface View {
  readonly id: string;
  readonly name: string;
  readonly hint: string;
  /** The key that shows it, and brings the first view back when it is shown. */
  readonly key: string;
  /** Print what while it is shown: an id of the table of sheets. */
  readonly sheet: string;
  /** Shows nothing, and stays, while the chart has no chords for a moment. */
  readonly isAlsoEmpty?: true;
  /** Has the page to itself: no panel of the change beside it. */
  readonly isAlone?: true;
  readonly part: Part<Component<ViewProps>>;
}
