import * as z from 'zod';
import { describeStack, packageNeeds } from '../description.js';

/** .NET MAUI, whose packages come from a feed. */
export const maui = describeStack({
  id: 'maui',
  name: '.NET MAUI',
  languages: ['csharp'],
  lacks: ['java', 'desugaring', 'shrinker'],
  packages: {
    needs: packageNeeds({
      source: z.url().optional().meta({ description: 'The package feed, when it is not the usual one.' }),
      frameworks: z.array(z.string().regex(/^net\d+\.\d+-(android|ios)$/)).default([]),
    }),
    brings: { android: [], ios: [] },
    feeds: 'packageSources in nuget.config',
    requires: ({ source, frameworks }) => ({
      feed: source,
      framework: /^net(\d+\.\d+)-/.exec(frameworks[0] ?? '')?.[1],
    }),
  },
});
