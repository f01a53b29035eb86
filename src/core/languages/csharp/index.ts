import { defineLanguage } from '../language.js';
import { pascalCase } from '../common/placebook.js';
import { csharpPlacebook } from './placebook.js';
import { csharpSyntax } from './syntax.js';

export const csharp = defineLanguage({
  id: 'csharp',
  dialects: [{ suffixes: ['.cs'], syntax: csharpSyntax }],
  literals: { nestedComments: false, tripleQuotes: true },
  placebook: {
    scope: 'all',
    files: ['Placebook.cs'],
    // Without other names, those that .NET defines.
    write: (books, { symbols = { android: 'ANDROID', ios: 'IOS' }, ...options }) => [
      csharpPlacebook(books, { ...options, symbols }),
    ],
  },
  reference: {
    unit: (placement, network) =>
      `Placebook.${pascalCase(placement)}.Unit(PlacebookNetwork.${pascalCase(network)})`,
    app: (network) => `PlacebookApps.${pascalCase(network)}`,
  },
  /** Code of the placebook's own namespace, or of one inside it, sees it as it is. */
  importPlacebook({ text, lineEnd }, { packageName: namespace }) {
    const own = /^[ \t]*namespace\s+([\w.]+)/m.exec(text)?.[1];
    if (namespace === undefined || own === namespace || own?.startsWith(`${namespace}.`)) return [];
    if (new RegExp(`^[ \\t]*(?:global )?using\\s+${namespace.replace(/\./g, '\\.')};`, 'm').test(text))
      return [];
    const last = [...text.matchAll(/^using\s+[^=(;]*;[^\r\n]*(?:\r\n|\n|\r)/gm)].at(-1);
    const at = last ? last.index + last[0].length : 0;
    return [{ start: at, end: at, text: `using ${namespace};${lineEnd}${last ? '' : lineEnd}` }];
  },
  constant: {
    word: /\bconst(?=\s+string\s+\w+\s*=\s*$)/,
    instead: (isLocal) => (isLocal ? '' : 'static readonly'),
  },
});
