/** The worker's door: jobs in, results out, beside the page. */
import { expose } from 'comlink';
import { solve } from './solve';

/** A page is not told of every step. */
const TELL_EVERY = 60;

const api = {
  solve(job: Parameters<typeof solve>[0], onProgress?: (done: number) => void) {
    let told = 0;
    return solve(
      job,
      onProgress &&
        ((done) => {
          const now = performance.now();
          if (now - told < TELL_EVERY) return;
          told = now;
          onProgress(done);
        })
    );
  }
};
export type SolverApi = typeof api;

expose(api);
