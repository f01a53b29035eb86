import prettier from 'eslint-config-prettier';
import tseslint from 'typescript-eslint';
import { ownValues } from './scripts/lint-own-values.mjs';
import { proseTests } from './scripts/lint-prose.mjs';

const code = ['src/**/*.{ts,tsx}', 'tests/**/*.ts'];

/** Rules that need the types of the whole program take most of the time, so each of them has to find real faults. */
const typed = {
  '@typescript-eslint/await-thenable': 'error',
  '@typescript-eslint/no-floating-promises': 'error',
  '@typescript-eslint/no-misused-promises': 'error',
  '@typescript-eslint/no-base-to-string': 'error',
  '@typescript-eslint/no-unnecessary-type-assertion': 'error',
  '@typescript-eslint/no-unsafe-argument': 'error',
  '@typescript-eslint/no-unsafe-call': 'error',
  '@typescript-eslint/no-unsafe-member-access': 'error',
  '@typescript-eslint/no-unsafe-return': 'error',
  '@typescript-eslint/only-throw-error': 'error',
  '@typescript-eslint/require-await': 'error',
  '@typescript-eslint/restrict-plus-operands': 'error',
  '@typescript-eslint/switch-exhaustiveness-check': ['error', { considerDefaultExhaustiveForUnions: true }],
  '@typescript-eslint/unbound-method': 'error',
};

export default tseslint.config(
  { ignores: ['dist/', 'node_modules/', 'demo/', 'docs/', '.bench/', '.mutants/', 'tests/fixtures/'] },
  ...tseslint.configs.strict.map((config) => ({ ...config, files: code })),
  {
    files: code,
    rules: {
      '@typescript-eslint/no-unused-vars': ['error', { argsIgnorePattern: '^_', varsIgnorePattern: '^_' }],
      '@typescript-eslint/consistent-type-imports': 'error',
      '@typescript-eslint/no-dynamic-delete': 'off',
      '@typescript-eslint/no-non-null-assertion': 'error',
      'no-console': 'error',
    },
  },
  {
    files: ['src/**/*.{ts,tsx}'],
    languageOptions: { parserOptions: { projectService: true, tsconfigRootDir: import.meta.dirname } },
    rules: {
      ...typed,
      'max-lines': ['error', 300],
      'max-lines-per-function': ['error', 60],
    },
  },
  {
    files: ['src/**/*.{ts,tsx}'],
    ignores: ['src/core/text/own-values.ts'],
    plugins: { syndexa: { rules: { 'own-values': ownValues, 'prose-tests': proseTests } } },
    rules: { 'syndexa/own-values': 'error', 'syndexa/prose-tests': 'error' },
  },
  {
    files: ['src/core/**/*.ts'],
    rules: {
      'no-restricted-globals': [
        'error',
        'process',
        'fetch',
        'setTimeout',
        'setInterval',
        'Buffer',
        'console',
      ],
      'no-restricted-properties': [
        'error',
        { object: 'Date', property: 'now' },
        { object: 'Math', property: 'random' },
      ],
    },
  },
  {
    files: ['src/core/checks/rules/*.ts'],
    ignores: ['src/core/checks/rules/index.ts', 'src/core/checks/rules/all.ts'],
    rules: {
      'no-restricted-imports': [
        'error',
        {
          patterns: [
            { group: ['./*'], message: 'Rules are strangers: share through ../ helpers.' },
            { group: ['node:*'], message: 'The core is pure.' },
          ],
        },
      ],
    },
  },
  {
    files: ['tests/**/*.ts'],
    rules: {
      '@typescript-eslint/no-non-null-assertion': 'off',
      '@typescript-eslint/no-explicit-any': 'off',
    },
  },
  {
    // commander hands options over untyped; the signature of each command function types them.
    files: ['src/cli/groups/*.ts'],
    rules: { '@typescript-eslint/no-unsafe-argument': 'off', '@typescript-eslint/unbound-method': 'off' },
  },
  prettier,
);
