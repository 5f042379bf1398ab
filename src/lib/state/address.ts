/** Where the player is in a chart, as the page's address says it: `?view=map&change=3&position=7`. */
export interface Place {
  /** An id of the table of views. */
  readonly view: string;
  /** Index of the selected change. */
  readonly change: number;
  /** Where the hand is. */
  readonly position: number;
}

function wholeNumber(text: string | null, lowest: number): number | undefined {
  return text !== null && /^\d{1,5}$/.test(text) && Number(text) >= lowest ? Number(text) : undefined;
}

/** What an address says; what it does not say, or says wrongly, is left out. `views`: the ids that there are. */
export function placeIn(params: URLSearchParams, views: readonly string[]): Partial<Place> {
  const view = params.get('view');
  const change = wholeNumber(params.get('change'), 1);
  const position = wholeNumber(params.get('position'), 0);
  return {
    ...(view !== null && views.includes(view) ? { view } : {}),
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
