import svelte from 'eslint-plugin-svelte';
import globals from 'globals';
import ts from 'typescript-eslint';
import svelteConfig from './svelte.config.js';

export default ts.config(
  { ignores: ['node_modules', '.svelte-kit', 'build', '.oculon', 'out', 'test-results'] },
  ...ts.configs.recommended,
  ...svelte.configs.recommended,
  { languageOptions: { globals: { ...globals.browser, ...globals.node } } },
  {
    files: ['**/*.svelte', '**/*.svelte.ts'],
    languageOptions: { parserOptions: { parser: ts.parser, svelteConfig } },
  },
  {
    rules: {
      '@typescript-eslint/no-explicit-any': 'error',
      '@typescript-eslint/no-unused-vars': ['error', { argsIgnorePattern: '^_', varsIgnorePattern: '^_' }],
      'max-lines': ['error', { max: 450, skipBlankLines: true, skipComments: true }],
      eqeqeq: ['error', 'always'],
      'svelte/no-navigation-without-resolve': 'off',
      // The desk's maps and sets are never changed in place; they sit in $state.raw.
      'svelte/prefer-svelte-reactivity': 'off',
    },
  },
);
