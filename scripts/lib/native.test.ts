import { readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { isFor, missingIn, missingParts, thisMachine } from './native.mjs';

const linux = { platform: 'linux', arch: 'x64', libc: 'gnu' };

describe('native parts', () => {
  it.each([
    ['@tailwindcss/oxide-linux-x64-gnu', linux, true],
    ['@tailwindcss/oxide-linux-x64-musl', linux, false],
    ['@tailwindcss/oxide-linux-x64-musl', { ...linux, libc: 'musl' }, true],
    ['@rolldown/binding-linux-arm-gnueabihf', { ...linux, arch: 'arm' }, true],
    ['@rolldown/binding-linux-arm64-gnu', { ...linux, arch: 'arm' }, false],
    ['lightningcss-darwin-arm64', { platform: 'darwin', arch: 'arm64', libc: null }, true],
    ['lightningcss-win32-x64-msvc', { platform: 'win32', arch: 'x64', libc: null }, true],
    ['@rollup/rollup-win32-x64-gnu', { platform: 'win32', arch: 'x64', libc: null }, false],
    ['fsevents', linux, false]
  ])('%s', (name, machine, fits) => expect(isFor(name, machine)).toBe(fits));

  it('that the machine needs are found missing, whether or not the lock file knows them', () => {
    const packages = {
      '': { optionalDependencies: {} },
      'node_modules/paint': {
        optionalDependencies: { 'paint-linux-x64-gnu': '1.2.0', 'paint-linux-x64-musl': '1.2.0' }
      },
      'node_modules/inner/node_modules/paint': { optionalDependencies: { 'paint-linux-x64-gnu': '2.0.0' } },
      'node_modules/gone': { optionalDependencies: { 'gone-linux-x64-gnu': '1.0.0' } },
      'node_modules/plain': {}
    };
    const installed = ['node_modules/paint', 'node_modules/plain'];
    const missing = () => missingParts(packages, linux, (path) => installed.includes(path));
    expect(missing()).toEqual(['paint-linux-x64-gnu@1.2.0']);
    installed.push('node_modules/paint-linux-x64-gnu');
    expect(missing()).toEqual([]);
  });

  it('are all here', () => {
    const root = new URL('../..', import.meta.url).pathname;
    const { packages } = JSON.parse(readFileSync(`${root}/package-lock.json`, 'utf8')) as {
      packages: object;
    };
    expect(thisMachine().arch).toBe(process.arch);
    expect(missingIn(root, packages)).toEqual([]);
  });
});
