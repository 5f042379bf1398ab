import { sveltekit } from '@sveltejs/kit/vite';
import tailwindcss from '@tailwindcss/vite';
import { availableParallelism } from 'node:os';
import { defineConfig } from 'vitest/config';
import { sounds } from './scripts/vite/sounds.mjs';
import { threads } from './scripts/vite/threads.mjs';

const TESTS = ['src/**/*.test.ts', 'scripts/**/*.test.ts'];
/** Tests that put something else in the place of a module have a process of their own. */
const ALONE = [
  'src/lib/state/{reach,chart/solver,takes/replay,stand/landings,stand/rehearsal}.test.ts',
  'src/lib/state/{lines,takes,songbook,practice}/rooms.test.ts'
];

export default defineConfig({
  plugins: [sounds(), threads(), tailwindcss(), sveltekit()],
  // The content security policy takes fonts from files only.
  build: {
    assetsInlineLimit: 0,
    // How long plugins take is no warning of anything.
    rolldownOptions: { checks: { bundlerTimings: false } }
  },
  // Far beyond what any test takes: a busy machine, or a slow disk, is no failure.
  test: {
    environment: 'node',
    setupFiles: ['src/lib/testing/setup.ts'],
    testTimeout: 300_000,
    hookTimeout: 300_000,
    // On two processors Vitest leaves one idle by itself.
    maxWorkers: Math.max(2, availableParallelism() - 1),
    projects: [
      // Files share what they import: it is read once in each process.
      {
        extends: true,
        test: { name: 'together', isolate: false, include: TESTS, exclude: ALONE }
      },
      { extends: true, test: { name: 'alone', include: ALONE } }
    ]
  }
});
