/** What can be printed of a chart: a new sheet is a row here and a component. Each arrives when it is asked for. */
import type { Component } from 'svelte';
import type { Workspace } from '$lib/state/chart/workspace.svelte';

export interface Sheet {
  readonly id: string;
  /** As a command says it: "the landing sheet". */
  readonly name: string;
  readonly load: () => Promise<{ default: Component<{ workspace: Workspace }> }>;
  /** What has to be there before it can be drawn at once: fonts, kept lines. */
  readonly prepare?: (workspace: Workspace) => Promise<unknown>;
}

const engraver = async () => (await import('./score/engrave')).ready();
const linesToo = async (workspace: Workspace) => Promise.all([engraver(), workspace.fetchLines()]);

export const SHEETS: readonly Sheet[] = [
  { id: 'moment', name: 'this change and all hands', load: () => import('./moment/MomentSheet.svelte') },
  { id: 'map', name: 'the position map', load: () => import('./map/MapSheet.svelte') },
  { id: 'grips', name: 'the grips', load: () => import('./grips/GripsSheet.svelte') },
  { id: 'landing', name: 'the landing sheet', load: () => import('./rules/LandingSheet.svelte') },
  {
    id: 'key',
    name: 'a sheet for this key: chords, choices, hands, targets, lines, room for notes',
    load: () => import('./sheet/KeySheet.svelte'),
    prepare: linesToo
  },
  {
    id: 'lines',
    name: 'the line on staff and tab',
    load: () => import('./lines/LinesSheet.svelte'),
    prepare: linesToo
  },
  { id: 'necks', name: 'blank necks', load: () => import('./sheet/BlankNecks.svelte') },
  { id: 'tab', name: 'blank staff and tab', load: () => import('./sheet/BlankTab.svelte') },
  { id: 'table', name: 'the chord table', load: () => import('./table/TableSheet.svelte') }
];
