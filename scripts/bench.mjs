// Prints the rows of the speed table that exist so far: medians, and ratios measured in the same run.
import { ensureBrowser, ensureBuild, ensurePackages, run } from './lib/setup.mjs';

ensurePackages();
ensureBuild();
ensureBrowser();
process.exit(run('npx', ['vitest', 'run', '--config', 'scripts/bench/vitest.config.ts', '--reporter=dot']));
