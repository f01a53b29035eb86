import * as z from 'zod';
import { reasoned, TreePath } from '../../words/words.js';
import { describeStack, packageNeeds, Version } from '../description.js';

/** The file that says for which version of a package its native libraries were fetched. */
const Resolution = z.lazy(() =>
  z.strictObject({
    file: TreePath.meta({ description: 'The JSON file that the command writes.' }),
    version: z
      .array(z.string().min(1))
      .min(1)
      .max(8)
      .meta({ description: 'The path to the version of the package in it, key by key.' }),
  }),
);

/** Unity, whose packages add a library with its own manifest. */
export const unity = describeStack({
  id: 'unity',
  name: 'Unity',
  languages: ['csharp'],
  lacks: ['java', 'desugaring', 'shrinker'],
  packages: {
    needs: packageNeeds({
      editor: Version.optional().meta({ description: 'The lowest version of the editor.' }),
      registry: z
        .strictObject({
          name: z.string().min(1),
          url: z.url(),
          scopes: z.array(z.string().min(1)).min(1),
        })
        .optional(),
      symbols: z.array(z.string().regex(/^[A-Z][A-Z0-9_]*$/)).default([]),
      settings: z
        .strictObject({
          asset: TreePath,
          fields: z.strictObject({
            'android-app-id': z.string().optional(),
            'ios-app-id': z.string().optional(),
          }),
          script: z
            .string()
            .regex(/^[0-9a-f]{32}$/, 'Thirty-two hexadecimal digits, as in a .meta file.')
            .optional()
            .meta({
              description: 'The GUID of the class of the asset, which is needed to create the asset.',
            }),
        })
        .optional()
        .meta({ description: 'The settings asset and the fields that take the app IDs.' }),
      native: reasoned({
        android: Resolution.optional(),
        ios: Resolution.optional(),
        command: z.string().min(3).max(120).meta({ description: 'The menu command that fetches them.' }),
      })
        .optional()
        .meta({ description: 'Native libraries that the package names and that a command fetches.' }),
    }),
    brings: { android: ['permissions', 'components', 'meta-data', 'merge', 'binaries'], ios: [] },
    appIdFields: ['settings', 'fields'],
    feeds: 'scopedRegistries in Packages/manifest.json',
    requires: ({ editor, registry, symbols, settings, native }) => ({
      framework: editor,
      feed: registry?.url,
      symbols,
      fetch: native?.command,
      files: [settings?.asset, native?.android?.file, native?.ios?.file].flatMap((file) => file ?? []),
    }),
  },
});
