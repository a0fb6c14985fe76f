import expo from 'eslint-config-expo/flat.js';
import prettier from 'eslint-config-prettier/flat';
import regexp from 'eslint-plugin-regexp';
import { arrows } from './scripts/arrows.mjs';

export default [
  { ignores: ['**/node_modules/**', '**/dist/**', '**/.expo/**', '.demo/**', '.tmp/**', 'docs/**'] },
  ...expo,
  {
    files: ['**/*.{ts,tsx}'],
    rules: {
      '@typescript-eslint/no-explicit-any': 'error',
      '@typescript-eslint/no-non-null-assertion': 'off',
      // A whole module is named as a type where its schemas are: typeof import('./records').
      '@typescript-eslint/consistent-type-imports': ['error', { disallowTypeAnnotations: false }],
      eqeqeq: ['error', 'always', { null: 'ignore' }],
      'no-console': 'error',
      // A map holds NaN where nothing was reached; z === z is the cheapest way to ask.
      'no-self-compare': 'off',
      'import/no-named-as-default-member': 'off',
    },
  },
  {
    // What sees text from outside must be linear: an expression that isn't lets one small request stop the server.
    files: ['apps/**/*.{ts,tsx}', 'packages/**/*.{ts,tsx}'],
    ignores: ['**/*.test.{ts,tsx}', '**/*.fixture.ts'],
    plugins: { regexp },
    rules: {
      'regexp/no-super-linear-backtracking': ['error', { report: 'potential' }],
      'regexp/no-super-linear-move': ['error', { report: 'potential' }],
    },
  },
  { files: ['scripts/**', 'bench/**', 'e2e/**'], rules: { 'no-console': 'off' } },
  {
    files: ['**/*.cjs'],
    languageOptions: { globals: { __dirname: 'readonly', module: 'writable', require: 'readonly' } },
  },
  ...arrows,
  prettier,
];
