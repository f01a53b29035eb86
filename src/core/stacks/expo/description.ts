import * as z from 'zod';
import { describeStack, packageNeeds } from '../description.js';

/** Expo, where a plugin of the package writes the native projects. */
export const expo = describeStack({
  id: 'expo',
  name: 'Expo',
  languages: ['typescript'],
  lacks: ['java', 'desugaring', 'shrinker'],
  packages: {
    needs: packageNeeds({
      plugin: z
        .strictObject({
          'android-app-id': z.string().min(1).optional(),
          'ios-app-id': z.string().min(1).optional(),
        })
        .optional()
        .meta({ description: 'The names of the plugin’s options that take the app IDs.' }),
      'development-build': z
        .boolean()
        .default(true)
        .meta({ description: 'Whether the package has native code, which the stock client lacks.' }),
    }),
    brings: {
      android: [
        'permissions',
        'components',
        'meta-data',
        'merge',
        'binaries',
        'companion',
        'plugin',
        'application',
      ],
      ios: ['linker-flags', 'companion'],
    },
    appIdFields: ['plugin'],
    requires({ plugin }) {
      const { 'android-app-id': android, 'ios-app-id': ios } = plugin ?? {};
      const options = {
        ...(android === undefined ? {} : { android }),
        ...(ios === undefined ? {} : { ios }),
      };
      return { pluginOptions: plugin && options };
    },
  },
});
