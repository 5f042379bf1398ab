/**
 * `import source from './job.ts?thread'` gives the code of a worker thread as text, for `new Worker(source, { eval: true })`. All that the
 * job imports is one script: the text itself or, in a build, a file of the programs that the text runs.
 */
import { build } from 'vite';
import { basename } from 'node:path';
import { oneScript } from './one-script.mjs';

const QUERY = '?thread';

/** @returns {import('vite').Plugin} */
export function threads() {
  let isBuild = false;
  return {
    name: 'corvel-threads',
    enforce: 'pre',
    configResolved({ command }) {
      isBuild = command === 'build';
    },
    async resolveId(id, importer) {
      if (!id.endsWith(QUERY)) return null;
      const resolved = await this.resolve(id.slice(0, -QUERY.length), importer, { skipSelf: true });
      return resolved && resolved.id + QUERY;
    },
    async load(id) {
      if (!id.endsWith(QUERY)) return null;
      const path = id.slice(0, -QUERY.length);
      const { output } = await build(oneScript(path, { write: false, minify: true }));
      const [chunk] = output;
      for (const module of chunk.moduleIds) if (!module.startsWith('\0')) this.addWatchFile(module);
      if (!isBuild) return `export default ${JSON.stringify(chunk.code)};`;
      const name = basename(path, '.ts');
      this.emitFile({ type: 'asset', fileName: `programs/${name}.cjs`, source: chunk.code });
      return `export default "require(process.env.CORVEL_PROGRAMS).run('${name}');";`;
    }
  };
}
