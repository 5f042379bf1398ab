// All checks in order; the last line counts the tests that really ran.
import { mkdirSync, readFileSync, rmSync } from 'node:fs';
import { join } from 'node:path';
import { say } from './lib/say.mjs';
import { ensureBrowser, ensureBuild, ensurePackages, ROOT, run } from './lib/setup.mjs';

ensurePackages();
ensureBrowser();

const results = join(ROOT, 'test-results');
rmSync(results, { recursive: true, force: true });
mkdirSync(results);

const failedChecks = [];
let passed = 0;
let failed = 0;

function check(name, program, args) {
  say(`\n— ${name}`);
  if (run(program, args) !== 0) failedChecks.push(name);
}

/** Runs a Vitest suite and counts its tests from its own report. */
function suite(name, args) {
  const report = join(results, `${name.replaceAll(' ', '-')}.json`);
  check(name, 'npx', [
    'vitest',
    'run',
    ...args,
    '--reporter=default',
    '--reporter=json',
    `--outputFile.json=${report}`
  ]);
  try {
    const { numPassedTests, numFailedTests } = JSON.parse(readFileSync(report, 'utf8'));
    passed += numPassedTests;
    failed += numFailedTests;
  } catch {
    failedChecks.push(`${name} (no report)`);
  }
}

check('format', 'npx', ['prettier', '--check', '--log-level', 'warn', '.']);
check('types', 'npm', ['run', '-s', 'check:types']);
check('lint', 'npx', ['eslint', '.']);
check('boundaries', 'npm', ['run', '-s', 'check:boundaries']);
check('unused code', 'npx', ['knip', '--no-progress']);
suite('unit tests', []);
say('\n— build');
ensureBuild();
suite('browser tests', ['--config', 'tests/vitest.config.ts']);

if (failedChecks.length) say(`\nNot in order: ${failedChecks.join(', ')}.`);
say(`\n${passed} passed, ${failed} failed`);
process.exit(failedChecks.length || failed ? 1 : 0);
