import { defineRule } from '../model.js';
import { compareVersions } from '../../text/versions.js';
import { editionScopes, fromFact } from '../scope.js';

/** The Kotlin compiler is older than an SDK's metadata allows. */
export const kotlinTooOld = defineRule({
  meta: {
    id: 'build/kotlin-too-old',
    severity: 'blocker',
    ifShipped: 'The build stops with a message about metadata that names neither the SDK nor the cause.',
    mend: 'Change the version of the Kotlin plugin here, or use another version of the SDK.',
    messages: {
      outside: '{network} works with Kotlin {bound} and newer, but this build has {value}: {why}',
    },
    needsTitle: true,
  },
  *run(context) {
    for (const scope of editionScopes(context)) {
      for (const profile of scope.networks) {
        const range = profile.android?.kotlin;
        if (range?.min === undefined) continue;
        for (const fact of scope.facts) {
          if (fact.kind !== 'kotlin' || !(compareVersions(fact.value, range.min) < 0)) continue;
          const data = { network: profile.name, bound: range.min, value: fact.value, why: range.why };
          yield { ...fromFact(fact), network: profile.id, message: 'outside', data };
        }
      }
    }
  },
});
