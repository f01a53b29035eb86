import { defineRule } from '../model.js';
import { compareVersions } from '../../text/versions.js';
import { editionScopes, fromFact } from '../scope.js';

/** The Kotlin compiler is newer than an SDK's metadata allows. */
export const kotlinTooNew = defineRule({
  meta: {
    id: 'build/kotlin-too-new',
    severity: 'blocker',
    ifShipped: 'The build stops with a message about metadata that names neither the SDK nor the cause.',
    mend: 'Change the version of the Kotlin plugin here, or use another version of the SDK.',
    messages: {
      outside: '{network} works with Kotlin below {bound}, but this build has {value}: {why}',
    },
    needsTitle: true,
  },
  *run(context) {
    for (const scope of editionScopes(context)) {
      for (const profile of scope.networks) {
        const range = profile.android?.kotlin;
        if (range?.below === undefined) continue;
        for (const fact of scope.facts) {
          if (fact.kind !== 'kotlin' || !(compareVersions(fact.value, range.below) >= 0)) continue;
          const data = { network: profile.name, bound: range.below, value: fact.value, why: range.why };
          yield { ...fromFact(fact), network: profile.id, message: 'outside', data };
        }
      }
    }
  },
});
