/** The worker's door: jobs in, results out, beside the page. */
import { expose } from 'comlink';
import { packResult } from './pack';
import { solve, type Solved, type SolverJob } from './solve';

/** A page is not told of every step. */
const TELL_EVERY = 60;

/** The reading that questions are about. */
let analysis: SolverJob['analysis'];
let before: Solved | undefined;

const api = {
  take(next: SolverJob['analysis']) {
    analysis = next;
  },
  solve(question: Omit<SolverJob, 'analysis'>, onProgress?: (done: number) => void) {
    let told = 0;
    const job = { analysis, ...question };
    const tell = (done: number) => {
      const now = performance.now();
      if (now - told < TELL_EVERY) return;
      told = now;
      onProgress?.(done);
    };
    before = { job, result: solve(job, tell, before) };
    return packResult(before.result);
  }
};
export type SolverApi = typeof api;

expose(api);
