/** What can be printed of a chart: a new sheet is a row here and a component. Each arrives when it is asked for. */
import type { Component } from 'svelte';
import type { Workspace } from '$lib/state/workspace.svelte';

export interface Sheet {
  readonly id: string;
  /** As a command says it: "the landing sheet". */
  readonly name: string;
  readonly load: () => Promise<{ default: Component<{ workspace: Workspace }> }>;
}

export const SHEETS: readonly Sheet[] = [
  { id: 'moment', name: 'this change and all hands', load: () => import('./moment/MomentSheet.svelte') },
  { id: 'map', name: 'the position map', load: () => import('./map/MapSheet.svelte') },
  { id: 'grips', name: 'the grips', load: () => import('./grips/GripsSheet.svelte') },
  { id: 'landing', name: 'the landing sheet', load: () => import('./rules/LandingSheet.svelte') },
  { id: 'table', name: 'the chord table', load: () => import('./table/TableSheet.svelte') }
];
