/** The parts of the page of the day: a new one is a row here and a component. Each arrives when it is shown. */
import { Part } from '../app/part';
import type { Component } from 'svelte';
import type { TodayState } from '$lib/state/practice/today.svelte';

export interface PanelProps {
  readonly today: TodayState;
}

export interface Panel {
  readonly id: string;
  readonly name: string;
  readonly part: Part<Component<PanelProps>>;
}

export const PANELS: readonly Panel[] = [
  { id: 'plan', name: 'Plan', part: new Part(() => import('./PlanPanel.svelte')) },
  { id: 'items', name: 'Exercises', part: new Part(() => import('./ItemsPanel.svelte')) },
  { id: 'dates', name: 'Set lists', part: new Part(() => import('./DatesPanel.svelte')) },
  { id: 'progress', name: 'Progress', part: new Part(() => import('./ProgressPanel.svelte')) },
  { id: 'log', name: 'Log', part: new Part(() => import('./LogPanel.svelte')) }
];
