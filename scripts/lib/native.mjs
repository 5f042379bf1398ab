// Packages with parts made for one kind of machine. A lock file names just the parts that were to be had where it was
// made; on another machine the package manager then leaves this machine's parts out without a word.
import { existsSync } from 'node:fs';
import { join } from 'node:path';

/** The kind of machine this is, as names of parts say it. */
export function thisMachine() {
  const { platform, arch } = process;
  const isGlibc = platform === 'linux' && !!process.report?.getReport().header.glibcVersionRuntime;
  return { platform, arch, libc: platform !== 'linux' ? null : isGlibc ? 'gnu' : 'musl' };
}

/** Whether a part's name says that it is for a kind of machine: "…-linux-x64-gnu", "…-darwin-arm64". */
export function isFor(name, { platform, arch, libc }) {
  const kind = `-${platform}-${arch}`;
  const at = name.lastIndexOf(kind);
  if (at < 0) return false;
  const rest = name.slice(at + kind.length);
  if (rest === '') return true;
  // A suffix names the C library: "-gnu", "-musl", "-gnueabihf", "-msvc".
  if (platform === 'linux') return rest.startsWith(`-${libc}`);
  return platform === 'win32' ? rest === '-msvc' : false;
}

/**
 * The parts that this machine needs and that are not installed, as "name@version". `packages` are those of a lock file;
 * `isInstalled` is asked with a path below the project.
 */
export function missingParts(packages, machine, isInstalled) {
  const missing = new Set();
  for (const [path, { optionalDependencies }] of Object.entries(packages)) {
    if (!path || !isInstalled(path)) continue;
    const parts = Object.entries(optionalDependencies ?? {}).filter(([name]) => isFor(name, machine));
    const isThere = parts.some(([name]) =>
      [join(path, 'node_modules', name), join('node_modules', name)].some(isInstalled)
    );
    if (!isThere) for (const [name, version] of parts) missing.add(`${name}@${version}`);
  }
  return [...missing].sort();
}

/** The missing parts of a project in a folder. */
export function missingIn(root, packages) {
  return missingParts(packages, thisMachine(), (path) => existsSync(join(root, path, 'package.json')));
}
