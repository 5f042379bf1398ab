/** The charts that are listed: found, sorted and narrowed down, page by page. */
import type { ChartList } from '$lib/api/songbook';
import { listCharts } from './client';
import { FILTERS, NO_FILTER, queryIn, queryOf, saidOf, type Filter, type Sort } from './filter';

/** What an address asks for. */
export type Wish = Partial<Filter> & { readonly search: string; readonly sort: Sort };

/** Whom a listing tells what it does. */
interface Outside {
  /** It was asked for something else: what an address says of it, empty where all is as usual. */
  readonly onasked: (said: string) => void;
  readonly onfailure: (error: unknown) => void;
}

export class Listing {
  found: ChartList = $state.raw({} as ChartList);
  search = $state('');
  sort: Sort = $state('practised');
  filter: Filter = $state.raw(NO_FILTER);
  readonly asked: Record<string, string> = $derived(queryOf(this.search, this.sort, this.filter));
  readonly isNarrowed: boolean = $derived(FILTERS.some((one) => this.filter[one] !== ''));

  /** Calls so far: an answer that another one has overtaken is dropped. */
  #calls = 0;
  readonly #outside: Outside;

  constructor(found: ChartList, wish: Wish, outside: Outside) {
    this.found = found;
    this.#outside = outside;
    const { search, sort, ...filter } = wish;
    this.#wish(search, sort, { ...NO_FILTER, ...filter });
  }

  #wish(search: string, sort: Sort, filter: Filter): void {
    this.search = search;
    this.sort = sort;
    this.filter = filter;
  }

  /** Back comes to an address as it was narrowed down last, with what the server was asked first. */
  async meet(address: URLSearchParams): Promise<void> {
    const { search, sort, filter, asked } = queryIn(address);
    if (saidOf(this.asked) === saidOf(asked)) return;
    this.#wish(search, sort, filter);
    await this.refresh();
  }

  async sortBy(sort: Sort): Promise<void> {
    this.sort = sort;
    await this.refresh();
  }

  async narrow(filter: Filter): Promise<void> {
    this.filter = filter;
    await this.refresh();
  }

  /** Asks again; from an offset on what comes is put behind what is there. */
  async refresh(offset = 0): Promise<void> {
    const call = ++this.#calls;
    this.#outside.onasked(saidOf(this.asked));
    try {
      const found = await listCharts({ ...this.asked, offset: String(offset) });
      if (call !== this.#calls) return;
      this.found = offset ? { ...found, charts: [...this.found.charts, ...found.charts] } : found;
    } catch (error) {
      this.#outside.onfailure(error);
    }
  }

  more(): Promise<void> {
    return this.refresh(this.found.charts.length);
  }
}
