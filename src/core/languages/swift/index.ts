import { defineLanguage } from '../language.js';
import { camelCase } from '../common/placebook.js';
import { swiftPlacebook } from './placebook.js';
import { swiftSyntax } from './syntax.js';

export const swift = defineLanguage({
  id: 'swift',
  native: 'ios',
  dialects: [{ suffixes: ['.swift'], syntax: swiftSyntax }],
  literals: { nestedComments: true, tripleQuotes: true },
  placebook: {
    scope: 'platform',
    files: ['Placebook.swift'],
    write: ({ test, production }, options) => [swiftPlacebook(test, production, options)],
  },
  reference: {
    unit: (placement, network) => `Placebook.${camelCase(placement)}.unit(.${camelCase(network)})`,
    app: (network) => `Placebook.Apps.${camelCase(network)}`,
  },
  // Files of one target see each other.
  importPlacebook: () => [],
});
