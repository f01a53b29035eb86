import prettier from 'eslint-config-prettier';
import tseslint from 'typescript-eslint';
import { ownValues } from './scripts/lint-own-values.mjs';

// The layers, from the lowest to the highest. A folder imports only from folders below it.
const layers = ['core', 'api', 'disk', 'partner', 'service', 'cli', 'console'];

/** What a layer may not import: itself is fine, everything above it is not. */
function layerRules() {
  return layers.map((layer, index) => {
    const above = layers.slice(index + 1);
    // The console and the partner speak to the service by HTTP only.
    const aside =
      {
        console: ['cli', 'service', 'partner', 'disk'],
        partner: ['disk'],
        service: ['partner'],
        cli: ['partner'],
      }[layer] ?? [];
    const groups = [...new Set([...above, ...aside])].flatMap((other) => [`**/${other}/**`]);
    const patterns =
      groups.length > 0
        ? [{ group: groups, message: `src/${layer} may only import from the layers below it.` }]
        : [];
    if (layer === 'core') {
      patterns.push({
        group: [
          'node:*',
          'fs',
          'path',
          'http',
          'express',
          'drizzle-orm*',
          'better-sqlite3',
          'react',
          'react-dom*',
          'react-bootstrap*',
          'react-router*',
          'commander',
        ],
        message: 'The core is pure: no file system, network, process or interface.',
      });
    }
    return {
      files: [`src/${layer}/**/*.{ts,tsx}`],
      rules: { 'no-restricted-imports': ['error', { patterns }] },
    };
  });
}

export default tseslint.config(
  { ignores: ['dist/', 'node_modules/', 'demo/', 'docs/', '.bench/'] },
  ...tseslint.configs.strictTypeChecked.map((config) => ({
    ...config,
    files: ['src/**/*.{ts,tsx}', 'tests/**/*.ts'],
  })),
  {
    files: ['src/**/*.{ts,tsx}', 'tests/**/*.ts'],
    languageOptions: { parserOptions: { projectService: true, tsconfigRootDir: import.meta.dirname } },
    rules: {
      '@typescript-eslint/restrict-template-expressions': 'off',
      '@typescript-eslint/no-unused-vars': ['error', { argsIgnorePattern: '^_', varsIgnorePattern: '^_' }],
      '@typescript-eslint/consistent-type-imports': 'error',
      '@typescript-eslint/no-confusing-void-expression': 'off',
      '@typescript-eslint/no-dynamic-delete': 'off',
      '@typescript-eslint/no-non-null-assertion': 'error',
      '@typescript-eslint/switch-exhaustiveness-check': [
        'error',
        { considerDefaultExhaustiveForUnions: true },
      ],
      '@typescript-eslint/prefer-promise-reject-errors': 'off',
      '@typescript-eslint/no-unnecessary-condition': 'off',
      '@typescript-eslint/no-unnecessary-type-parameters': 'off',
      'no-console': 'error',
    },
  },
  {
    files: ['src/**/*.{ts,tsx}'],
    ignores: ['src/core/text/own-values.ts'],
    plugins: { syndexa: { rules: { 'own-values': ownValues } } },
    rules: { 'syndexa/own-values': 'error' },
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
    ignores: ['src/core/checks/rules/index.ts'],
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
      '@typescript-eslint/no-unsafe-assignment': 'off',
      '@typescript-eslint/no-unsafe-member-access': 'off',
      '@typescript-eslint/no-unsafe-argument': 'off',
      '@typescript-eslint/no-unsafe-call': 'off',
      '@typescript-eslint/no-unsafe-return': 'off',
    },
  },
  {
    // commander hands options over untyped; the signature of each command function types them.
    files: ['src/cli/groups/*.ts'],
    rules: { '@typescript-eslint/no-unsafe-argument': 'off', '@typescript-eslint/unbound-method': 'off' },
  },
  ...layerRules(),
  prettier,
);
