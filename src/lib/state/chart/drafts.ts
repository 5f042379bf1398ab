/**
 * What has been typed and not yet been acknowledged by the server, kept on the device: it survives leaving, a reload, a
 * crash of the page and a server that is away.
 */
import type { Plan } from '$lib/core/plan/model';
import type { DraftThere } from './stored-draft';
import { thisWindow } from '../windows';

export interface Draft {
  readonly source: string;
  readonly plan: Plan;
}

export type KeptDraft = DraftThere & { readonly place: string };

const PLACE = 'corvel-draft:';
const NEW_CHART = 'corvel-new-chart';

type Store = Pick<Storage, 'getItem' | 'setItem' | 'removeItem' | 'key' | 'length'>;

/** The browser's own store; null where there is none or it is shut. */
function deviceStore(): Store | null {
  try {
    return typeof localStorage === 'undefined' ? null : localStorage;
  } catch {
    return null;
  }
}

export class Drafts {
  readonly #store: Store | null;
  readonly #window: string;

  constructor(store: Store | null = deviceStore(), window = thisWindow) {
    this.#store = store;
    this.#window = window;
  }

  #place(chart: string): string {
    return `${PLACE}${chart}:${this.#window}`;
  }

  /** Keeps what was typed in this window; false where the device has no room for it. */
  keep(chart: string, base: number, { source, plan }: Draft, at: number): boolean {
    try {
      this.#store?.setItem(this.#place(chart), JSON.stringify({ base, source, plan, at }));
      return this.#store !== null;
    } catch {
      return false;
    }
  }

  /** What was typed in this window has been acknowledged. */
  settle(chart: string): void {
    this.drop(this.#place(chart));
  }

  drop(place: string): void {
    try {
      this.#store?.removeItem(place);
    } catch {
      // What cannot be removed is offered once more.
    }
  }

  /**
   * What was left behind for a chart, oldest first; windows that are open look after theirs. What reads it comes only where
   * there is something; where that cannot be had, all of it stays for the next time.
   */
  async leftFor(chart: string, open: ReadonlySet<string>): Promise<KeptDraft[]> {
    const start = `${PLACE}${chart}:`;
    const places = this.#places().filter(
      (place) => place.startsWith(start) && !open.has(place.slice(start.length))
    );
    if (places.length === 0) return [];
    const reader = await import('./stored-draft').catch(() => null);
    return places
      .flatMap((place) => {
        const draft = reader?.readKeptDraft(this.#store?.getItem(place) ?? '');
        return draft ? [{ ...draft, place }] : [];
      })
      .sort((a, b) => a.at - b.at);
  }

  #places(): string[] {
    const store = this.#store;
    if (!store) return [];
    return Array.from({ length: store.length }, (_, i) => store.key(i) ?? '');
  }

  /** The text of a chart that is being begun in the songbook. */
  get newChart(): string {
    return this.#store?.getItem(NEW_CHART) ?? '';
  }

  set newChart(text: string) {
    try {
      if (text) this.#store?.setItem(NEW_CHART, text);
      else this.#store?.removeItem(NEW_CHART);
    } catch {
      // A browser that keeps nothing still takes charts.
    }
  }
}
