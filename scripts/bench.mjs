// Prints the rows of the speed table: medians, and ratios measured in the same run. `npm run bench -- pages` prints one part.
import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { ensureBrowser, ensureBuild, ensurePackages, ROOT, run } from './lib/setup.mjs';

ensurePackages();
ensureBuild();
ensureBrowser();
const [part = ''] = process.argv.slice(2);
const BROWSER = ['--config', 'tests/vitest.config.ts'];
/** Files of property tests. */
const properties = () =>
  readdirSync(join(ROOT, 'src'), { recursive: true })
    .map((name) => join('src', name))
    .filter(
      (path) => path.endsWith('.test.ts') && readFileSync(join(ROOT, path), 'utf8').includes('fast-check')
    );
/** Tests in their full counts, of which `npm test` holds a small share. */
const LARGE = {
  axe: { env: { CORVEL_ALL_LOOKS: '1' }, args: [...BROWSER, '-t', 'axe finds nothing'] },
  focus: {
    env: { CORVEL_ALL_LOOKS: '1' },
    args: [...BROWSER, 'browser/shell', '-t', 'focus to the body']
  },
  blame: {
    env: { CORVEL_LARGE: '1' },
    args: ['src/lib/core/takes/blame.test.ts', 'src/lib/core/line/phrase/phrase.test.ts']
  },
  fuzz: { env: { CORVEL_LARGE: '1' }, args: ['src/lib/core/formats/fuzz.test.ts'] },
  // Each time with other inputs; a failure tells its seed.
  properties: { env: { CORVEL_LARGE: '1' }, args: properties, times: 10 },
  kills: { env: { CORVEL_KILLS: '500' }, args: [...BROWSER, 'boundary/keeping', '-t', 'killed midway'] }
};
if (Object.hasOwn(LARGE, part)) {
  const { env, args, times = 1 } = LARGE[part];
  const options = { env: { ...process.env, ...env } };
  for (let i = 0; i < times; i++) {
    const code = run(
      'npx',
      ['vitest', 'run', ...(typeof args === 'function' ? args() : args), '--reporter=verbose'],
      options
    );
    if (code !== 0) process.exit(code);
  }
  process.exit(0);
}
const only = part === '' ? [] : ['-t', part];
process.exit(
  run('npx', ['vitest', 'run', '--config', 'scripts/bench/vitest.config.ts', '--reporter=dot', ...only])
);
