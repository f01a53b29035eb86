import { describeStack, packageNeeds, Version } from '../description.js';

/** React Native, whose packages are linked into the native builds. */
export const reactNative = describeStack({
  id: 'react-native',
  name: 'React Native',
  languages: ['typescript'],
  packages: {
    needs: packageNeeds({
      'react-native': Version.optional().meta({ description: 'The lowest version of React Native.' }),
    }),
    // A pod sets the linker flags that it needs.
    brings: { android: [], ios: ['linker-flags'] },
    requires: (needs) => ({ framework: needs['react-native'] }),
  },
});
