import { defineLanguage } from '../language.js';
import { camelCase } from '../common/placebook.js';
import { moduleImport } from './module-import.js';
import { typescriptPlacebook } from './placebook.js';
import { tsxSyntax, typescriptSyntax } from './syntax.js';

export const typescript = defineLanguage({
  id: 'typescript',
  dialects: [
    { suffixes: ['.tsx', '.jsx', '.js', '.mjs', '.cjs'], syntax: tsxSyntax },
    { suffixes: ['.ts', '.mts', '.cts'], syntax: typescriptSyntax },
  ],
  literals: {
    nestedComments: false,
    tripleQuotes: false,
    singleQuotes: true,
    graveAccents: true,
    interpolates: true,
  },
  placebook: {
    scope: 'all',
    files: ['placebook.ts'],
    write: (books, options) => [typescriptPlacebook(books, options)],
  },
  reference: {
    unit: (placement, network) =>
      `Placebook.${camelCase(placement)}.unit(PlacebookNetwork.${camelCase(network)})`,
    app: (network) => `PlacebookApps.${camelCase(network)}`,
    // A JSX attribute takes a string literal as it is, and any other expression in braces.
    inPlace: (reference, { before, isArgument }) =>
      before === '=' && isArgument ? `{${reference}}` : reference,
  },
  importPlacebook: moduleImport,
  hasPromises: true,
  quotes: '`',
});
