import expo from 'eslint-config-expo/flat.js';
import prettier from 'eslint-config-prettier/flat';
import { arrows } from './scripts/arrows.mjs';

export default [
  { ignores: ['**/node_modules/**', '**/dist/**', '**/.expo/**', '.demo/**', '.tmp/**', 'docs/**'] },
  ...expo,
  {
    files: ['**/*.{ts,tsx}'],
    rules: {
      '@typescript-eslint/no-explicit-any': 'error',
      '@typescript-eslint/no-non-null-assertion': 'off',
      '@typescript-eslint/consistent-type-imports': 'error',
      eqeqeq: ['error', 'always', { null: 'ignore' }],
      'no-console': 'error',
      // A map holds NaN where nothing was reached; z === z is the cheapest way to ask.
      'no-self-compare': 'off',
      'import/no-named-as-default-member': 'off',
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
