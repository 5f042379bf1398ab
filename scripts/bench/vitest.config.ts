import { defineConfig } from 'vitest/config';

export default defineConfig({
  test: { root: import.meta.dirname, include: ['rows.ts'], environment: 'node', testTimeout: 1_800_000 }
});
