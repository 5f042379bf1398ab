/** The views of a chart, in the order of the work: a new one is a row here and a component. */
import { firstOf } from '$lib/core/base/list';
import { Part } from './app/part';
import Moment from './moment/Moment.svelte';
import type { View } from './view';

export const VIEWS: readonly View[] = [
  {
    id: 'moment',
    name: 'Moment',
    hint: 'The change of chord, on threads and neck (S)',
    key: 's',
    sheet: 'moment',
    // The view that a chart opens with comes with the page.
    part: new Part(() => Promise.resolve({ default: Moment }))
  },
  {
    id: 'map',
    name: 'Map',
    hint: 'Positions down, changes across (M)',
    key: 'm',
    sheet: 'map',
    part: new Part(() => import('./map/PositionMap.svelte'))
  },
  {
    id: 'grips',
    name: 'Grips',
    hint: 'Chords held, from grip to grip (G)',
    key: 'g',
    sheet: 'grips',
    part: new Part(() => import('./grips/Grips.svelte'))
  },
  {
    id: 'lines',
    name: 'Lines',
    hint: 'A line over the chords: found, read, judged, played (I)',
    key: 'i',
    sheet: 'lines',
    isAlone: true,
    part: new Part(() => import('./lines/Lines.svelte'))
  },
  {
    id: 'rehearse',
    name: 'Rehearse',
    hint: 'Band, drills and the stand (P)',
    key: 'p',
    sheet: 'landing',
    isAlsoEmpty: true,
    isAlone: true,
    part: new Part(() => import('./rehearse/Rehearse.svelte'))
  },
  {
    id: 'takes',
    name: 'Takes',
    hint: 'Play to it, and read how the line met the chords (D)',
    key: 'd',
    sheet: 'landing',
    isAlone: true,
    part: new Part(() => import('./takes/Takes.svelte'))
  }
];

export const FIRST_VIEW = firstOf(VIEWS);

export function viewOf(id: string): View {
  return VIEWS.find((view) => view.id === id) ?? FIRST_VIEW;
}
