import { defineLanguage } from '../language.js';
import { importOfClass } from '../common/imports.js';
import { upperCase } from '../common/placebook.js';
import { javaPlacebook } from './placebook.js';
import { javaSyntax } from './syntax.js';

export const java = defineLanguage({
  id: 'java',
  native: 'android',
  dialects: [{ suffixes: ['.java'], syntax: javaSyntax }],
  literals: { nestedComments: false, tripleQuotes: true },
  placebook: {
    scope: 'stage',
    files: ['Placebook.java'],
    write: (book, options) => [javaPlacebook(book, options)],
  },
  reference: {
    unit: (placement, network) =>
      `Placebook.${upperCase(placement)}.unit(Placebook.Network.${upperCase(network)})`,
    app: (network) => `Placebook.Apps.${upperCase(network)}`,
  },
  importPlacebook: (file, book) => importOfClass(file, book, ';'),
});
