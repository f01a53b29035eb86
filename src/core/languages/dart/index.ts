import { defineLanguage } from '../language.js';
import { camelCase } from '../common/placebook.js';
import { libraryImport } from './library-import.js';
import { dartPlacebook } from './placebook.js';
import { dartSyntax } from './syntax.js';

export const dart = defineLanguage({
  id: 'dart',
  dialects: [{ suffixes: ['.dart'], syntax: dartSyntax }],
  literals: { nestedComments: true, tripleQuotes: true, singleQuotes: true, interpolates: true },
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
  // Files that are parts of one library see each other's private names.
  isPrivate: (name, code) => name.startsWith('_') && !/^[ \t]*part\b/m.test(code),
  entry: (path, code) =>
    !/^[ \t]*(?:(?:void|Future<void>)\s+)?main\s*\(/m.test(code)
      ? undefined
      : path.endsWith('lib/main.dart')
        ? 'usual'
        : 'other',
  constant: { word: /\bconst(?=\s+(?:String\s+)?\w+\s*=\s*$)/, instead: () => 'final' },
});
