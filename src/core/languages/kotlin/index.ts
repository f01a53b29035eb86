import { defineLanguage } from '../language.js';
import { importOfClass } from '../common/imports.js';
import { camelCase, upperCase } from '../common/placebook.js';
import { kotlinPlacebook } from './placebook.js';
import { kotlinSyntax } from './syntax.js';

export const kotlin = defineLanguage({
  id: 'kotlin',
  native: 'android',
  dialects: [{ suffixes: ['.kt'], syntax: kotlinSyntax }],
  literals: { nestedComments: true, tripleQuotes: true, interpolates: true },
  placebook: {
    scope: 'stage',
    files: ['Placebook.kt'],
    write: (book, options) => [kotlinPlacebook(book, options)],
  },
  reference: {
    unit: (placement, network) =>
      `Placebook.${camelCase(placement)}.unit(Placebook.Network.${upperCase(network)})`,
    app: (network) => `Placebook.Apps.${upperCase(network)}`,
  },
  importPlacebook: (file, book) => importOfClass(file, book, ''),
  constant: { word: /\bconst\s+(?=val\s+\w+(?:\s*:\s*String)?\s*=\s*$)/, instead: () => '' },
});
