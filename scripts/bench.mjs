// Prints the rows of the speed table: medians, and ratios measured in the same run. `npm run bench -- pages` prints one part.
import { ensureBrowser, ensureBuild, ensurePackages, run } from './lib/setup.mjs';

ensurePackages();
ensureBuild();
ensureBrowser();
const [part = ''] = process.argv.slice(2);
const BROWSER = ['--config', 'tests/vitest.config.ts'];
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
  kills: { env: { CORVEL_KILLS: '500' }, args: [...BROWSER, 'boundary/keeping', '-t', 'killed midway'] }
};
if (Object.hasOwn(LARGE, part)) {
  const { env, args } = LARGE[part];
  const options = { env: { ...process.env, ...env } };
  process.exit(run('npx', ['vitest', 'run', ...args, '--reporter=verbose'], options));
}
const only = part === '' ? [] : ['-t', part];
process.exit(
  run('npx', ['vitest', 'run', '--config', 'scripts/bench/vitest.config.ts', '--reporter=dot', ...only])
);
