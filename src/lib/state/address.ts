/** Where the player is in a chart, as the page's address says it: `?view=map&change=3&position=7`. */
import { VIEW_NAMES, type View } from './workspace.svelte';

export interface Place {
  readonly view: View;
  /** Index of the selected change. */
  readonly change: number;
  /** Where the hand is. */
  readonly position: number;
}

const isView = (text: string | null): text is View => text !== null && Object.hasOwn(VIEW_NAMES, text);

function wholeNumber(text: string | null, lowest: number): number | undefined {
  return text !== null && /^\d{1,5}$/.test(text) && Number(text) >= lowest ? Number(text) : undefined;
}

/** What an address says; what it does not say, or says wrongly, is left out. */
export function placeIn(params: URLSearchParams): Partial<Place> {
  const view = params.get('view');
  const change = wholeNumber(params.get('change'), 1);
  const position = wholeNumber(params.get('position'), 0);
  return {
    ...(isView(view) ? { view } : {}),
    ...(change === undefined ? {} : { change: change - 1 }),
    ...(position === undefined ? {} : { position })
  };
}

/** The query of an address; changes are counted from 1, as players count. */
export function queryOf({ view, change, position }: Place): string {
  return `?view=${view}&change=${change + 1}&position=${position}`;
}

export function isSamePlace(a: Place, b: Partial<Place>): boolean {
  return a.view === b.view && a.change === b.change && a.position === b.position;
}
