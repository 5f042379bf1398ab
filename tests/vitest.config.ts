import { availableParallelism } from 'node:os';
import { basename } from 'node:path';
import { defineConfig } from 'vitest/config';
import { BaseSequencer, type TestSpecification } from 'vitest/node';

/** What takes longest begins first, so that nothing long is left alone at the end. */
const LONGEST = ['stand', 'desk', 'takes', 'keeping', 'server', 'reach'];

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
    globalSetup: ['seed.ts'],
    sequence: { sequencer: LongestFirst },
    // What is really heard goes on in real time: what a busy machine was too late for is asked once more.
    retry: 1,
    // Far beyond what any job takes: a busy machine is no failure.
    testTimeout: 180_000,
    hookTimeout: 180_000,
    // One more than there are processors: a job waits for its page half of the time.
    maxWorkers: Math.max(2, availableParallelism()) + 1
  }
});
