import { defineRule } from '../model.js';
import { editionScopes, fromFact } from '../scope.js';
import { platformLabels } from '../../words/platform-labels.js';

/** A package is available to the code, but its native part is not in the build. */
export const packageNotLinked = defineRule({
  meta: {
    id: 'build/package-not-linked',
    severity: 'blocker',
    ifShipped:
      'The app crashes at the first call of the SDK: its code is bundled, but its native part is not in the build.',
    mend: 'Remove the exclusion, or let the native build link packages again (autolinkLibrariesWithApp, use_native_modules!).',
    messages: {
      excluded: '{package} is excluded from linking on {platform} here.',
      unlinked: '{package} is installed, but nothing here links packages into the {platform} build.',
    },
    needsTitle: true,
  },
  *run(context) {
    for (const scope of editionScopes(context)) {
      for (const fact of scope.facts) {
        const used = scope.networks.some(({ id }) => id === fact.network);
        if (fact.kind !== 'linking' || !used) continue;
        const message = fact.value === 'left out' ? 'excluded' : 'unlinked';
        const data = { package: fact.name ?? '', platform: platformLabels[scope.platform] };
        yield { ...fromFact(fact), message, data };
      }
    }
  },
});
