import adapter from '@sveltejs/adapter-node';
import { copyFileSync, cpSync, writeFileSync } from 'node:fs';
import { vitePreprocess } from '@sveltejs/vite-plugin-svelte';
import { build } from 'vite';
import { oneScript } from './scripts/vite/one-script.mjs';
import { warm } from './scripts/vite/warm.mjs';

const node = adapter({ precompress: true });

/**
 * The build for Node. The server is one script among the programs in `build/programs`, which threads run too; the adapter's entry takes it
 * from there, so that its bundler reads the entry alone.
 */
const withPrograms = {
  ...node,
  async adapt(builder) {
    const entry = builder.getBuildDirectory('entry');
    builder.mkdirp(entry);
    for (const [file, name] of [
      ['index', 'Server'],
      ['manifest', 'manifest']
    ])
      writeFileSync(
        `${entry}/${file}.js`,
        `import { createRequire } from 'node:module';\n` +
          `export const { ${name} } = createRequire(import.meta.url)(process.env.CORVEL_PROGRAMS).run('server');\n`
      );
    await node.adapt({ ...builder, getServerDirectory: () => entry });

    const parts = builder.getBuildDirectory('parts');
    builder.rimraf(parts);
    builder.writeServer(parts);
    writeFileSync(
      `${parts}/server.js`,
      `export { Server } from './index.js';\n` +
        `export const manifest = ${builder.generateManifest({ relativePath: './' })};\n`
    );
    const programs = 'build/programs';
    builder.mkdirp(programs);
    await build(oneScript(`${parts}/server.js`, { outDir: programs, fileName: 'server.cjs' }));
    cpSync(`${parts}/programs`, programs, { recursive: true });
    copyFileSync('scripts/lib/run.cjs', `${programs}/run.cjs`);
    await warm();
  }
};

/** @type {import('@sveltejs/kit').Config} */
export default {
  preprocess: vitePreprocess(),
  kit: {
    adapter: withPrograms,
    // A page that is open while Corvel is built anew loads its next one whole.
    version: { pollInterval: 60_000 },
    // hooks.server.ts checks where every write comes from, JSON and forms alike.
    csrf: { trustedOrigins: ['*'] },
    csp: {
      mode: 'nonce',
      directives: {
        'default-src': ['self'],
        // The stretcher of recordings is WebAssembly; nothing else may be made into code.
        'script-src': ['self', 'wasm-unsafe-eval'],
        // Positions inside drawings are style attributes; no style sheet comes from elsewhere.
        'style-src': ['self', 'unsafe-inline'],
        'img-src': ['self', 'data:'],
        'font-src': ['self'],
        'manifest-src': ['self'],
        'connect-src': ['self'],
        // The sound library makes its clock from a script of its own.
        'worker-src': ['self', 'blob:'],
        'object-src': ['none'],
        'base-uri': ['none'],
        'form-action': ['self'],
        'frame-ancestors': ['none']
      }
    }
  }
};
