/** The views of a chart, in the order of the work: a new one is a row here and a component. */
import type { Component } from 'svelte';
import type { Workspace } from '$lib/state/workspace.svelte';

export interface ViewProps {
  readonly workspace: Workspace;
  readonly page: PageActions;
}

/** What a view can ask of the page around it. */
export interface PageActions {
  /** Prints a sheet by its id. */
  readonly print: (sheet: string) => void;
}

export interface View {
  readonly id: string;
  readonly name: string;
  readonly hint: string;
  /** The key that shows it, and brings the first view back when it is shown. */
  readonly key: string;
  /** What is printed while it is shown: an id of the table of sheets. */
  readonly sheet: string;
  /** Shows nothing, and stays, while the chart has no chords for a moment. */
  readonly isAlsoEmpty?: true;
  /** Has the page to itself: no panel of the change beside it. */
  readonly isAlone?: true;
  readonly load: () => Promise<{ default: Component<ViewProps> }>;
}

export const VIEWS: readonly View[] = [
  {
    id: 'moment',
    name: 'Moment',
    hint: 'The change of chord, on threads and neck (S)',
    key: 's',
    sheet: 'moment',
    load: () => import('./moment/Moment.svelte')
  },
  {
    id: 'map',
    name: 'Map',
    hint: 'Positions down, changes across (M)',
    key: 'm',
    sheet: 'map',
    load: () => import('./map/PositionMap.svelte')
  },
  {
    id: 'grips',
    name: 'Grips',
    hint: 'Chords held, from grip to grip (G)',
    key: 'g',
    sheet: 'grips',
    load: () => import('./grips/Grips.svelte')
  },
  {
    id: 'rehearse',
    name: 'Rehearse',
    hint: 'Band, drills and the stand (P)',
    key: 'p',
    sheet: 'landing',
    isAlsoEmpty: true,
    isAlone: true,
    load: () => import('./rehearse/Rehearse.svelte')
  }
];

export const FIRST_VIEW = VIEWS[0]!;

export function viewOf(id: string): View {
  return VIEWS.find((view) => view.id === id) ?? FIRST_VIEW;
}
