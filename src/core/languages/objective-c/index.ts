import { defineLanguage } from '../language.js';
import { camelCase, pascalCase } from '../common/placebook.js';
import { appName, objectiveCHeader, objectiveCSource } from './placebook.js';
import { objectiveCSyntax } from './syntax.js';

export const objectiveC = defineLanguage({
  id: 'objective-c',
  native: 'ios',
  dialects: [{ suffixes: ['.m', '.mm'], syntax: objectiveCSyntax }],
  literals: { nestedComments: false, tripleQuotes: false },
  placebook: {
    scope: 'platform',
    files: ['Placebook.h', 'Placebook.m'],
    write: ({ test, production }, options) => [
      objectiveCHeader(test, production, options),
      objectiveCSource(test, production, options),
    ],
  },
  reference: {
    unit: (placement, network) =>
      `[Placebook.${camelCase(placement)} unitFor:PlacebookNetwork${pascalCase(network)}]`,
    app: (network) => `Placebook.${appName(network)}`,
  },
  importPlacebook({ text, lineEnd }) {
    if (/^#import "Placebook\.h"/m.test(text)) return [];
    const last = [...text.matchAll(/^#(?:import|include)[^\r\n]*(?:\r\n|\n|\r)/gm)].at(-1);
    const at = last ? last.index + last[0].length : 0;
    return [{ start: at, end: at, text: `#import "Placebook.h"${lineEnd}` }];
  },
});
