import { availableParallelism } from 'node:os';
import { basename } from 'node:path';
import { defineConfig } from 'vitest/config';
import { BaseSequencer, type TestSpecification } from 'vitest/node';

/** What takes longest begins first, so that nothing long is left alone at the end. */
const LONGEST = ['rehearse', 'access', 'keeping', 'server', 'first', 'writing', 'reach', 'practice', 'lines'];

class LongestFirst extends BaseSequencer {
  override async sort(files: TestSpecification[]): Promise<TestSpecification[]> {
    const placeOf = ({ moduleId }: TestSpecification) => {
      const at = LONGEST.indexOf(basename(moduleId, '.test.ts'));
      return at < 0 ? LONGEST.length : at;
    };
    return [...files].sort((a, b) => placeOf(a) - placeOf(b));
  }
}

export default defineConfig({
  test: {
    root: import.meta.dirname,
    // Each file has one server and one browser for all its jobs; files run beside one another.
    include: ['browser/*.test.ts', 'boundary/*.test.ts'],
    environment: 'node',
    sequence: { sequencer: LongestFirst },
    // Music and pages go on in real time beside one another: what a busy machine was too late for is asked once more.
    retry: 1,
    testTimeout: 60_000,
    hookTimeout: 120_000,
    // Jobs wait more than they work.
    maxWorkers: Math.max(2, availableParallelism()) + 1
  }
});
