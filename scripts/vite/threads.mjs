/**
 * `import source from './job.ts?thread'` gives the code of a worker thread as text: one bundle with all that it imports,
 * which `new Worker(source, { eval: true })` runs wherever the server's own bundle ends up.
 */
import { build } from 'vite';

const QUERY = '?thread';

/** @returns {import('vite').Plugin} */
export function threads() {
  return {
    name: 'corvel-threads',
    enforce: 'pre',
    async resolveId(id, importer) {
      if (!id.endsWith(QUERY)) return null;
      const resolved = await this.resolve(id.slice(0, -QUERY.length), importer, { skipSelf: true });
      return resolved && resolved.id + QUERY;
    },
    async load(id) {
      if (!id.endsWith(QUERY)) return null;
      const bundled = await build({
        configFile: false,
        logLevel: 'error',
        // Native modules stay where they are installed.
        ssr: { noExternal: true, external: ['better-sqlite3'] },
        build: {
          ssr: id.slice(0, -QUERY.length),
          write: false,
          minify: true,
          rolldownOptions: { output: { format: 'cjs', codeSplitting: false } }
        }
      });
      const chunk = bundled.output[0];
      for (const module of chunk.moduleIds) if (!module.startsWith('\0')) this.addWatchFile(module);
      return `export default ${JSON.stringify(chunk.code)};`;
    }
  };
}
