import { defineLanguage } from '../language.js';
import { camelCase } from '../common/placebook.js';
import { libraryImport } from './library-import.js';
import { dartPlacebook } from './placebook.js';
import { dartSyntax } from './syntax.js';

export const dart = defineLanguage({
  id: 'dart',
  dialects: [{ suffixes: ['.dart'], syntax: dartSyntax }],
  literals: { nestedComments: true, tripleQuotes: true },
  placebook: {
    scope: 'all',
    files: ['placebook.dart'],
    write: (books, options) => [dartPlacebook(books, options)],
  },
  reference: {
    unit: (placement, network) =>
      `Placebook.${camelCase(placement)}.unit(PlacebookNetwork.${camelCase(network)})`,
    app: (network) => `PlacebookApps.${camelCase(network)}`,
  },
  importPlacebook: libraryImport,
  constant: { word: /\bconst(?=\s+(?:String\s+)?\w+\s*=\s*$)/, instead: () => 'final' },
});
