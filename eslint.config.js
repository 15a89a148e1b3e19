import js from '@eslint/js';
import reactHooks from 'eslint-plugin-react-hooks';
import tseslint from 'typescript-eslint';
import { clockRules } from './scripts/clock-rules.mjs';
import { areasOfCore, floorRules } from './scripts/floors.mjs';
import { webFloorRules } from './scripts/web-floors.mjs';

export default tseslint.config(
  {
    ignores: [
      '**/dist/**',
      '**/bundle/**',
      '**/node_modules/**',
      'data/**',
      'data-demo/**',
      'test-results/**',
      '.cache/**',
    ],
  },
  js.configs.recommended,
  ...tseslint.configs.strict,
  {
    rules: {
      '@typescript-eslint/no-non-null-assertion': 'off',
      '@typescript-eslint/no-extraneous-class': ['error', { allowWithDecorator: true }],
      '@typescript-eslint/no-unused-vars': ['error', { argsIgnorePattern: '^_', varsIgnorePattern: '^_' }],
      '@typescript-eslint/consistent-type-imports': 'error',
      // Otherwise the page fetches a whole package for the sake of a type.
      '@typescript-eslint/no-import-type-side-effects': 'error',
      '@typescript-eslint/no-dynamic-delete': 'off',
      eqeqeq: 'error',
      'no-console': 'error',
    },
  },
  // Constructor parameters of decorated classes are imports of values, whatever it looks like.
  { files: ['packages/server/**/*.ts'], rules: { '@typescript-eslint/consistent-type-imports': 'off' } },
  {
    files: [
      'scripts/**',
      'packages/web/testing/**',
      'packages/*/src/main.ts',
      'packages/e2e/**',
      'packages/benchmarks/**',
      '*.js',
    ],
    languageOptions: {
      globals: {
        process: 'readonly',
        console: 'readonly',
        Buffer: 'readonly',
        fetch: 'readonly',
        setTimeout: 'readonly',
        clearTimeout: 'readonly',
        URL: 'readonly',
        performance: 'readonly',
        structuredClone: 'readonly',
        EventTarget: 'readonly',
      },
    },
    rules: { 'no-console': 'off' },
  },
  { files: ['packages/web/**/*.{ts,tsx}'], ...reactHooks.configs.flat['recommended-latest'] },
  ...floorRules(areasOfCore),
  ...clockRules,
  ...webFloorRules,
);
