import importX from 'eslint-plugin-import-x';
import { createTypeScriptImportResolver } from 'eslint-import-resolver-typescript';
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
    files: ['src/**/*.ts'],
    plugins: { 'import-x': importX },
    settings: {
      ...importX.flatConfigs.typescript.settings,
      'import-x/resolver-next': [createTypeScriptImportResolver()],
    },
    // By value: types may know each other.
    rules: { 'import-x/no-cycle': ['error', { ignoreExternal: true }] },
  },
  {
    rules: {
      // A switch is one decision.
      complexity: ['error', { max: 15, variant: 'modified' }],
      'max-params': ['error', 5],
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
