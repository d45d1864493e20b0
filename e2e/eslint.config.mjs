// What bin/test holds all JavaScript of the project to. Formatting is Prettier's.
import js from '@eslint/js';
import imports from 'eslint-plugin-import';
import globals from 'globals';

const rules = {
  ...js.configs.recommended.rules,
  'import/no-cycle': 'error',
  'import/no-self-import': 'error',
  'import/no-duplicates': 'error',
  'no-unused-vars': ['error', { caughtErrors: 'none', argsIgnorePattern: '^_' }],
  'no-empty': ['error', { allowEmptyCatch: true }],
  'no-var': 'error',
  'prefer-const': 'error',
  eqeqeq: 'error',
};
const plugins = { import: imports };

export default [
  { ignores: ['web/vendor/**', 'web/vendoring/**', 'web/wasm/**', 'e2e/node_modules/**', '**/*.go', '.build/**'] },
  {
    files: ['web/**/*.js'],
    plugins,
    rules,
    languageOptions: {
      sourceType: 'module',
      globals: { ...globals.browser, htmx: 'readonly', Alpine: 'readonly', Go: 'readonly' },
    },
  },
  {
    files: ['site/scripts/*.js'],
    rules: { ...js.configs.recommended.rules, eqeqeq: 'error' },
    languageOptions: { sourceType: 'script', globals: globals.browser },
  },
  {
    files: ['e2e/*.mjs'],
    plugins,
    rules,
    languageOptions: { sourceType: 'module', globals: { ...globals.node, ...globals.browser } },
  },
];
