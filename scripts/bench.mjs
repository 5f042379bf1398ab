// Prints the rows of the speed table: medians, and ratios measured in the same run. `npm run bench -- pages` prints one part.
import { ensureBrowser, ensureBuild, ensurePackages, run } from './lib/setup.mjs';

ensurePackages();
ensureBuild();
ensureBrowser();
const [part] = process.argv.slice(2);
if (part === 'fuzz') {
  const args = ['vitest', 'run', 'src/lib/core/formats/fuzz.test.ts', '--reporter=verbose'];
  process.exit(run('npx', args, { env: { ...process.env, CORVEL_LARGE: '1' } }));
}
if (part === 'kills') {
  const args = [
    'vitest',
    'run',
    '--config',
    'tests/vitest.config.ts',
    'boundary/keeping',
    '-t',
    'killed midway'
  ];
  process.exit(run('npx', args, { env: { ...process.env, CORVEL_KILLS: '500' } }));
}
if (part === 'axe') {
  const args = [
    'vitest',
    'run',
    '--config',
    'tests/vitest.config.ts',
    '--reporter=verbose',
    '-t',
    'axe finds nothing'
  ];
  process.exit(run('npx', args, { env: { ...process.env, CORVEL_ALL_LOOKS: '1' } }));
}
const only = part === undefined ? [] : ['-t', part];
process.exit(
  run('npx', ['vitest', 'run', '--config', 'scripts/bench/vitest.config.ts', '--reporter=dot', ...only])
);
