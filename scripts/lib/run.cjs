/**
 * Runs a part of the build that is one script, `NAME.cjs` beside this file, with the code that V8 made of it when Corvel was built: a
 * thread that starts need not compile it anew. Code that another Node made is left aside by V8, and the script is compiled as ever.
 */
const { isAscii } = require('node:buffer');
const { readFileSync, statSync, writeFileSync } = require('node:fs');
const { join } = require('node:path');
const vm = require('node:vm');
const { isMainThread } = require('node:worker_threads');

const pathOf = (name, kind) => join(__dirname, `${name}.${kind}`);

function codeOf(name) {
  try {
    return readFileSync(pathOf(name, 'code'));
  } catch {
    return undefined;
  }
}

function read(name) {
  const filename = pathOf(name, 'cjs');
  const bytes = readFileSync(filename);
  // The build writes plain ASCII, which V8 keeps in half the space.
  const text = bytes.toString(isAscii(bytes) ? 'latin1' : 'utf8');
  const source = `(function (require, module, exports) {${text}\n})`;
  return new vm.Script(source, { filename, cachedData: codeOf(name) });
}

const exported = new Map();

/** What the script exports. @param {string} name */
exports.run = (name) => {
  if (exported.has(name)) return exported.get(name);
  const script = read(name);
  if (process.env.CORVEL_KEEP_CODE && !isMainThread) process.on('exit', () => keep(name, script));
  const module = { exports: {} };
  script.runInThisContext()(require, module, module.exports);
  exported.set(name, module.exports);
  return module.exports;
};

/** Whether V8 takes the code that lies beside a script. @param {string} name */
exports.isReady = (name) => read(name).cachedDataRejected === false;

/** Keeps what V8 has compiled of a script by now, where no other thread has kept more. */
function keep(name, script) {
  const code = script.createCachedData();
  const kept = statSync(pathOf(name, 'code'), { throwIfNoEntry: false });
  if (code.length > (kept?.size ?? 0)) writeFileSync(pathOf(name, 'code'), code);
}
