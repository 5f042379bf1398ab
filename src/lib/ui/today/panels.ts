/** The parts of the page of the day: a new one is a row here and a component. Each arrives when it is shown. */
import type { Component } from 'svelte';
import type { TodayState } from '$lib/state/today.svelte';

export interface PanelProps {
  readonly today: TodayState;
}

export interface Panel {
  readonly id: string;
  readonly name: string;
  readonly load: () => Promise<{ default: Component<PanelProps> }>;
}

export const PANELS: readonly Panel[] = [
  { id: 'plan', name: 'Plan', load: () => import('./PlanPanel.svelte') },
  { id: 'items', name: 'What I practise', load: () => import('./ItemsPanel.svelte') },
  { id: 'dates', name: 'For a date', load: () => import('./DatesPanel.svelte') },
  { id: 'progress', name: 'Progress', load: () => import('./ProgressPanel.svelte') },
  { id: 'log', name: 'Log', load: () => import('./LogPanel.svelte') }
];
