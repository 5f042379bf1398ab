// All checks, beside one another; the last line counts the tests that really ran. With --quick: types, walls, lint, and the unit tests of
// what has changed.
import { spawnSync } from 'node:child_process';
import { existsSync, mkdirSync, mkdtempSync, readFileSync, rmSync, statfsSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join, relative } from 'node:path';
import { say } from './lib/say.mjs';
import { ensureBrowser, ensurePackages, ROOT } from './lib/setup.mjs';
import { runTasks } from './lib/tasks.mjs';

const isQuick = process.argv.includes('--quick');
const begun = Date.now();
ensurePackages();
if (!isQuick) ensureBrowser();

/** Songbooks, browsers and copies of the tests lie in memory where there is room for them: nobody waits for a disk. */
function temporary() {
  const memory = '/dev/shm';
  try {
    const { bavail, bsize } = statfsSync(memory);
    return mkdtempSync(join(bavail * bsize > 4e9 ? memory : tmpdir(), 'corvel-test-'));
  } catch {
    return mkdtempSync(join(tmpdir(), 'corvel-test-'));
  }
}
const scratch = temporary();
process.env.TMPDIR = scratch;
process.on('exit', () => rmSync(scratch, { recursive: true, force: true, maxRetries: 3 }));
// Nothing stays in memory where the run is broken off.
for (const [signal, code] of [
  ['SIGINT', 130],
  ['SIGTERM', 143]
])
  process.once(signal, () => process.exit(code));

const results = join(ROOT, 'test-results');
rmSync(results, { recursive: true, force: true });
mkdirSync(results);

const reportOf = (name) => join(results, `${name.replaceAll(' ', '-')}.json`);
/** Short-lived objects die young in a larger nursery: a fifth less work for what reads all sources. */
const ROOMY = { NODE_OPTIONS: `${process.env.NODE_OPTIONS ?? ''} --max-semi-space-size=64`.trim() };

const tool = (name, program, args, more = {}) => ({
  name,
  program: 'npx',
  args: [program, ...args],
  ...more
});
const vitest = (name, args, more = {}) =>
  tool(
    name,
    'vitest',
    ['run', ...args, '--reporter=default', '--reporter=json', `--outputFile.json=${reportOf(name)}`],
    more
  );

/** Files that differ from what was committed last. */
function changed() {
  const git = (...args) => spawnSync('git', args, { cwd: ROOT, encoding: 'utf8' }).stdout ?? '';
  const names = `${git('diff', '--name-only', 'HEAD')}\n${git('ls-files', '--others', '--exclude-standard')}`;
  return names.split('\n').filter((name) => /\.(ts|mjs|svelte)$/.test(name) && existsSync(join(ROOT, name)));
}

const boundaries = tool('boundaries', 'depcruise', ['src', '--config', '.dependency-cruiser.cjs']);

function quickTasks() {
  const components = changed().filter((name) => /\.svelte(\.ts)?$/.test(name));
  const cache = ['--cache', '--cache-location', 'node_modules/.cache/eslint/'];
  const lint = [
    tool('lint', 'oxlint', []),
    ...(components.length ? [tool('lint of components', 'eslint', [...cache, ...components])] : [])
  ];
  const types = tool('types', 'svelte-check', [
    '--tsconfig',
    './tsconfig.json',
    '--incremental',
    '--tsgo',
    '--output',
    'human'
  ]);
  return [types, ...lint, boundaries, vitest('unit tests', ['--changed'])];
}

const allTasks = () => [
  // What takes longest and what others wait for comes first.
  { name: 'build', program: process.execPath, args: ['scripts/lib/build.mjs'], env: ROOMY },
  { name: 'types', program: 'npm', args: ['run', '-s', 'check:types'] },
  vitest('browser tests', ['--config', 'tests/vitest.config.ts'], { after: ['build'] }),
  vitest('unit tests', [], { after: ['types'], env: ROOMY }),
  { name: 'lint', program: 'npm', args: ['run', '-s', 'check:lint'], env: ROOMY },
  { name: 'format', program: 'npm', args: ['run', '-s', 'check:format'], env: ROOMY },
  tool('unused code', 'knip', ['--no-progress']),
  boundaries
];

const failedChecks = [];
/** What each test that failed says, for the end of the output: that is what is kept where only some of it is. */
const failures = [];
let [passed, failed] = [0, 0];
await runTasks(isQuick ? quickTasks() : allTasks(), ({ name, code, seconds, output }) => {
  say(
    `\n— ${name}: ${code === null ? 'not begun' : `${code === 0 ? 'in order' : 'NOT in order'}, ${seconds.toFixed(0)} s`}`
  );
  if (output.trim() && (code !== 0 || name.endsWith('tests'))) say(output.trim());
  if (code !== 0) failedChecks.push(name);
  if (!name.endsWith('tests') || code === null) return;
  try {
    const { numPassedTests, numFailedTests, testResults } = JSON.parse(readFileSync(reportOf(name), 'utf8'));
    passed += numPassedTests;
    failed += numFailedTests;
    for (const file of testResults) {
      if (file.message) failures.push(`${relative(ROOT, file.name)}\n${file.message}`);
      for (const { status, fullName, failureMessages } of file.assertionResults)
        if (status === 'failed')
          failures.push(`${relative(ROOT, file.name)}: ${fullName}\n${failureMessages.join('\n')}`);
    }
  } catch {
    failedChecks.push(`${name} (no report)`);
  }
});

if (failures.length) say(`\n— What failed\n${failures.join('\n\n')}`);
if (failedChecks.length) say(`\nNot in order: ${failedChecks.join(', ')}.`);
say(`\nAll of it took ${((Date.now() - begun) / 60_000).toFixed(1)} minutes.`);
say(`\n${passed} passed, ${failed} failed`);
process.exit(failedChecks.length || failed ? 1 : 0);
