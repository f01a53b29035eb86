import { describeStack, packageNeeds, Version } from '../description.js';

/** Flutter, whose packages add their native part as a dependency and a pod. */
export const flutter = describeStack({
  id: 'flutter',
  name: 'Flutter',
  languages: ['dart'],
  packages: {
    needs: packageNeeds({ sdk: Version.optional().meta({ description: 'The lowest Dart SDK.' }) }),
    // A pod sets the linker flags that it needs.
    brings: { android: [], ios: ['linker-flags'] },
    requires: ({ sdk }) => ({ framework: sdk }),
  },
});
