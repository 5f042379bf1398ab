/** How a module and all that it imports become one script for Node. @returns {import('vite').InlineConfig} */
export const oneScript = (entry, { fileName, ...options }) => ({
  configFile: false,
  logLevel: 'error',
  // Native modules stay where they are installed.
  ssr: { noExternal: true, external: ['better-sqlite3'] },
  build: {
    ...options,
    ssr: entry,
    emptyOutDir: false,
    rolldownOptions: {
      output: {
        format: 'cjs',
        charset: 'ascii',
        comments: false,
        codeSplitting: false,
        dynamicImportInCjs: false,
        ...(fileName ? { entryFileNames: fileName } : {})
      }
    }
  }
});
