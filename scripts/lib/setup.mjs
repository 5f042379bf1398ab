// What every command does first on a fresh machine: packages, build, browser. Only Node's own modules are used here,
// since nothing else may be installed yet.
import { spawnSync } from 'node:child_process';
import { createHash } from 'node:crypto';
import { existsSync, mkdirSync, readFileSync, readdirSync, statSync, writeFileSync } from 'node:fs';
import { dirname, join, relative } from 'node:path';
import { fileURLToPath } from 'node:url';
import { missingIn } from './native.mjs';
import { say, stop } from './say.mjs';

export const ROOT = fileURLToPath(new URL('../..', import.meta.url));

/** Runs a program with its output shown; returns its exit code. */
export function run(program, args, options = {}) {
  const { status, error } = spawnSync(program, args, { cwd: ROOT, stdio: 'inherit', ...options });
  return error ? 127 : (status ?? 1);
}

function has(program) {
  return spawnSync('sh', ['-c', `command -v ${program}`], { stdio: 'ignore' }).status === 0;
}

/** A fingerprint of files and folders by content. */
function fingerprint(paths) {
  const hash = createHash('sha256');
  const add = (path) => {
    if (!existsSync(path)) return;
    if (statSync(path).isDirectory()) {
      for (const name of readdirSync(path).sort()) add(join(path, name));
    } else if (!path.endsWith('.test.ts')) {
      hash.update(relative(ROOT, path));
      hash.update(readFileSync(path));
    }
  };
  for (const path of paths) add(join(ROOT, path));
  return hash.digest('hex');
}

/** Does work unless its mark says that it was done for the very same inputs, and on the same kind of machine. */
function once(mark, inputs, work) {
  const path = join(ROOT, mark);
  const now = `${fingerprint(inputs)} ${process.platform} ${process.arch} ${process.versions.modules}`;
  if (existsSync(path) && readFileSync(path, 'utf8') === now) return;
  work();
  mkdirSync(dirname(path), { recursive: true });
  writeFileSync(path, now);
}

export function ensurePackages() {
  const [major, minor] = process.versions.node.split('.').map(Number);
  if (major < 20 || (major === 20 && minor < 19)) {
    stop(`Corvel needs Node.js 20.19 or newer; this is ${process.versions.node}.`);
  }
  once('node_modules/.corvel-installed', ['package.json', 'package-lock.json'], () => {
    say('Installing packages. The database module is compiled here; this takes two to three minutes.');
    // Not `npm ci`: it refuses a lock file made where the registry lacks other platforms' optional packages.
    if (run('npm', ['install', '--no-save', '--no-audit', '--no-fund', '--include=dev']) !== 0) {
      const missing = ['python3', 'make', 'g++'].filter((tool) => !has(tool));
      stop(
        missing.length
          ? `The packages could not be installed: ${missing.join(', ')} missing, needed to compile the database module.`
          : 'The packages could not be installed; the lines above say why. A working connection to the npm registry is needed once.'
      );
    }
    ensureDatabaseModule();
  });
  ensureNativeParts();
}

/** The parts made for this kind of machine, which a lock file from another one does not name. */
function ensureNativeParts() {
  const lock = () => JSON.parse(readFileSync(join(ROOT, 'package-lock.json'), 'utf8')).packages;
  const missing = missingIn(ROOT, lock());
  if (missing.length === 0) return;
  say(`Fetching what this kind of machine needs besides: ${missing.join(', ')}`);
  const fetched = run('npm', [
    'install',
    '--no-save',
    '--no-audit',
    '--no-fund',
    '--include=dev',
    ...missing
  ]);
  const left = missingIn(ROOT, lock());
  if (fetched === 0 && left.length === 0) return;
  stop(
    `The packages that this kind of machine (${process.platform}, ${process.arch}) needs could not be fetched: ${left.join(', ') || missing.join(', ')}. A working connection to the npm registry is needed once.`
  );
}

/** A module compiled for another Node.js does not load; it is compiled anew. */
function ensureDatabaseModule() {
  const loads = () =>
    run(process.execPath, ['-e', "new (require('better-sqlite3'))(':memory:').close()"], {
      stdio: 'ignore'
    }) === 0;
  if (loads()) return;
  say('Compiling the database module for this Node.js.');
  if (run('npm', ['rebuild', 'better-sqlite3']) === 0 && loads()) return;
  stop('The database module does not load; python3, make and g++ are needed to compile it.');
}

export function ensureBuild() {
  const inputs = [
    'src',
    'static',
    'scripts/vite',
    'scripts/start.mjs',
    'scripts/lib/run.cjs',
    'package.json',
    'package-lock.json',
    'vite.config.ts',
    'svelte.config.js',
    'tsconfig.json'
  ];
  once('build/.corvel-built', inputs, () => {
    say('Building Corvel; this takes about half a minute.');
    if (run('npx', ['vite', 'build', '--logLevel', 'warn']) !== 0)
      stop('The build failed; the lines above say why.');
  });
}

export function ensureBrowser() {
  const isThere = () =>
    existsSync(process.env.CORVEL_CHROMIUM ?? '/usr/bin/chromium') &&
    existsSync(process.env.CORVEL_CHROMEDRIVER ?? '/usr/bin/chromedriver');
  if (isThere()) return;
  const sentence =
    'The browser tests need Debian’s packages chromium and chromium-driver: apt-get install chromium chromium-driver';
  const asRoot = process.getuid?.() === 0 ? [] : has('sudo') ? ['sudo', '-n'] : null;
  if (!has('apt-get') || !asRoot) stop(sentence);
  say('Installing Chromium for the browser tests; this takes about a minute.');
  const apt = (...args) => {
    const [program, ...rest] = [...asRoot, 'apt-get', ...args];
    return run(program, rest, { env: { ...process.env, DEBIAN_FRONTEND: 'noninteractive' } });
  };
  apt('update', '-qq');
  const install = (...packages) => apt('install', '-y', '-qq', '--no-install-recommends', ...packages);
  install('chromium', 'chromium-driver');
  if (!isThere()) stop(sentence);
  // Lighter, where Debian has it; the tests pass without.
  install('chromium-headless-shell');
}
