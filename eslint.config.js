// Components and runes alone: `.oxlintrc.json` has the rules of plain TypeScript, and TypeScript itself finds what is not used.
import svelte from 'eslint-plugin-svelte';
import globals from 'globals';
import ts from 'typescript-eslint';
import svelteConfig from './svelte.config.js';

export default [
  { ignores: ['.svelte-kit/', 'build/', 'data/', 'node_modules/'] },
  ...svelte.configs.recommended,
  ...svelte.configs.prettier,
  {
    files: ['**/*.svelte', '**/*.svelte.ts'],
    languageOptions: {
      globals: globals.browser,
      parserOptions: { parser: ts.parser, extraFileExtensions: ['.svelte'], svelteConfig }
    },
    rules: { 'svelte/no-navigation-without-resolve': 'off' }
  }
];
