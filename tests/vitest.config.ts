import { availableParallelism } from 'node:os';
import { defineConfig } from 'vitest/config';

export default defineConfig({
  test: {
    root: import.meta.dirname,
    // Each file has one server and one browser for all its jobs; files run beside one another.
    include: ['browser/*.test.ts', 'boundary/*.test.ts'],
    environment: 'node',
    // Music and pages go on in real time beside one another: what a busy machine was too late for is asked once more.
    retry: 1,
    testTimeout: 60_000,
    hookTimeout: 120_000,
    maxWorkers: Math.max(2, availableParallelism())
  }
});
