/** The charts beside the one that is open, found as the search is typed. */
import type { ChartSummary } from '$lib/api/songbook';
import { listCharts } from './client';

export class OtherCharts {
  found: readonly ChartSummary[] = $state.raw([]);
  search = $state('');
  /** Calls so far: an answer that another one has overtaken is dropped. */
  #calls = 0;
  readonly #own: () => string;

  /** `own`: the id of the chart that is open. */
  constructor(own: () => string) {
    this.#own = own;
  }

  /** Throws where the songbook cannot be read, as far as nothing was asked since. */
  async find(): Promise<void> {
    const call = ++this.#calls;
    try {
      const { charts } = await listCharts({ search: this.search, sort: 'title' });
      if (call === this.#calls) this.found = charts.filter(({ id }) => id !== this.#own());
    } catch (error) {
      if (call === this.#calls) throw error;
    }
  }
}
