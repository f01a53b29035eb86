import { defineRule } from '../model.js';
import { editionScopes, fromFact, platformName } from '../scope.js';

/** A package is there for the code, and its native half is not taken into the build. */
export const packageNotLinked = defineRule({
  meta: {
    id: 'build/package-not-linked',
    severity: 'blocker',
    ifShipped:
      'The app stops at the first call of the SDK: the code is bundled, what it calls is not in the build.',
    mend: 'Take the exclusion out, or let the native build link the packages again (autolinkLibrariesWithApp, use_native_modules!).',
    messages: {
      excluded: '{package} is left out of linking on {platform} here.',
      unlinked: '{package} is among the packages, and nothing here links packages into the {platform} build.',
    },
    needsTitle: true,
  },
  *run(context) {
    for (const scope of editionScopes(context)) {
      for (const fact of scope.facts) {
        const used = scope.networks.some(({ id }) => id === fact.network);
        if (fact.kind !== 'linking' || !used) continue;
        const message = fact.value === 'left out' ? 'excluded' : 'unlinked';
        const data = { package: fact.name ?? '', platform: platformName(scope.platform) };
        yield { ...fromFact(fact), message, data };
      }
    }
  },
});
