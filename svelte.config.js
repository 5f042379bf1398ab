import adapter from '@sveltejs/adapter-node';
import { writeFileSync } from 'node:fs';
import { vitePreprocess } from '@sveltejs/vite-plugin-svelte';

const node = adapter({ precompress: true });

/**
 * The build for Node, with the server as modules of its own in `build/pages`: threads draw pages with them, and the adapter's entry takes
 * them from there. Its bundler reads the entry alone, not all of the server once more.
 */
const withPages = {
  ...node,
  async adapt(builder) {
    const entry = builder.getBuildDirectory('entry');
    builder.mkdirp(entry);
    // Paths as they are seen from the chunks of the adapter, in `build/server/chunks`.
    for (const [file, name] of [
      ['index', 'Server'],
      ['manifest', 'manifest']
    ])
      writeFileSync(
        `${entry}/${file}.js`,
        `export const { ${name} } = await import(new URL('../../pages/${file}.js', import.meta.url).href);\n`
      );
    await node.adapt({ ...builder, getServerDirectory: () => entry });
    builder.writeServer('build/pages');
    writeFileSync(
      'build/pages/manifest.js',
      `export const manifest = ${builder.generateManifest({ relativePath: './' })};\n`
    );
  }
};

/** @type {import('@sveltejs/kit').Config} */
export default {
  preprocess: vitePreprocess(),
  kit: {
    adapter: withPages,
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
