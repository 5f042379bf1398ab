import { sveltekit } from '@sveltejs/kit/vite';
import tailwindcss from '@tailwindcss/vite';
import { availableParallelism } from 'node:os';
import { defineConfig } from 'vitest/config';
import { sounds } from './scripts/vite/sounds.mjs';
import { threads } from './scripts/vite/threads.mjs';

export default defineConfig({
  plugins: [sounds(), threads(), tailwindcss(), sveltekit()],
  // The content security policy takes fonts from files only.
  build: {
    assetsInlineLimit: 0,
    // How long plugins take is no warning of anything.
    rolldownOptions: { checks: { bundlerTimings: false } }
  },
  // Property tests may take their time on a busy machine; none asserts how long.
  // On two processors Vitest leaves one idle by itself.
  test: {
    include: ['src/**/*.test.ts', 'scripts/**/*.test.ts'],
    environment: 'node',
    testTimeout: 60_000,
    maxWorkers: Math.max(2, availableParallelism() - 1)
  }
});
