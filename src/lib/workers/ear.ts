/** Listening while it is played, beside the page: block by block. */
import { expose } from 'comlink';
import { LiveEar, type LiveMoment } from '../core/takes/listen/live';
import type { RecordedBlock } from '../core/takes/model';

let ear: LiveEar | null = null;

const api = {
  /** Begins anew with a sound of so many samples a second; `steady`: seconds that a pitch is told from. */
  begin(rate: number, steady?: number): void {
    ear = new LiveEar(rate, steady);
  },
  /** What is heard at the end of a block; null before a sound has begun. */
  hear: (block: RecordedBlock): LiveMoment | null => ear?.take(block) ?? null
};
export type EarApi = typeof api;

expose(api);
