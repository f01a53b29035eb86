import { defineRule } from '../model.js';
import { editionScopes, fromFact } from '../scope.js';

/** A target with pods is based on a configuration file that does not include the settings of the pods. */
export const podsNotIncluded = defineRule({
  meta: {
    id: 'build/pods-not-included',
    severity: 'blocker',
    ifShipped: 'The build stops: neither the compiler nor the linker finds what the pods bring.',
    mend: 'Write #include? "{pods}" into this file. An install of pods does it only for targets without such a file.',
    messages: {
      absent: '{target} takes pods, but its configuration file does not include their settings.',
    },
    needsTitle: true,
  },
  *run(context) {
    for (const scope of editionScopes(context)) {
      for (const fact of scope.facts) {
        if (fact.kind !== 'base-configuration' || fact.includesPods) continue;
        const data = { target: fact.module, pods: fact.pods };
        yield { ...fromFact(fact), message: 'absent', data };
      }
    }
  },
});
