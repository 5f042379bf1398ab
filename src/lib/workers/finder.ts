/** Finding lines beside the page: a chart with its plan in, lines out. */
import { expose } from 'comlink';
import { readSheet } from '../core/harmony/sheet';
import { systemOf } from '../core/neck/systems/registry';
import type { Instrument } from '../core/neck/tuning';
import { arrange } from '../core/plan/arrange';
import { linesOf, type LineWish } from '../core/plan/lines';
import type { Plan } from '../core/plan/model';

export interface FinderJob {
  readonly source: string;
  readonly plan: Plan;
  readonly neck: Instrument;
  /** Id of the neck system. */
  readonly system: string;
  readonly wish: LineWish;
}

const api = {
  find({ source, plan, neck, system, wish }: FinderJob) {
    return linesOf(arrange({ sheet: readSheet(source), plan }, neck, systemOf(system)), wish);
  }
};
export type FinderApi = typeof api;

expose(api);
