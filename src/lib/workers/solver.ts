/** The worker's door: jobs in, results out, beside the page. */
import { expose } from 'comlink';
import { packResult } from './pack';
import { solve, type SolverJob } from './solve';

/** A page is not told of every step. */
const TELL_EVERY = 60;

/** The reading that questions are about. */
let analysis: SolverJob['analysis'];

const api = {
  take(next: SolverJob['analysis']) {
    analysis = next;
  },
  solve(question: Omit<SolverJob, 'analysis'>, onProgress?: (done: number) => void) {
    let told = 0;
    return packResult(
      solve(
        { analysis, ...question },
        onProgress &&
          ((done) => {
            const now = performance.now();
            if (now - told < TELL_EVERY) return;
            told = now;
            onProgress(done);
          })
      )
    );
  }
};
export type SolverApi = typeof api;

expose(api);
