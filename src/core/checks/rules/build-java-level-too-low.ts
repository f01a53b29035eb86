import { compareVersions } from '../../text/versions.js';
import { defineRule } from '../model.js';
import { editionScopes, fromFact } from '../scope.js';

/** The code of a module is compiled for a Java level that an SDK does not work with. */
export const javaLevelTooLow = defineRule({
  meta: {
    id: 'build/java-level-too-low',
    severity: 'blocker',
    ifShipped: 'The build stops where the SDK’s functions are taken into the app’s code.',
    mend: 'Raise the level in compileOptions, and jvmTarget with it where Kotlin has one of its own.',
    byWiring: 'Run syndexa wire: it raises the level.',
    messages: {
      low: '{network} needs Java level {needed}, but {language} is compiled for {value} here: {why}',
    },
    needsTitle: true,
  },
  *run(context) {
    for (const scope of editionScopes(context)) {
      for (const profile of scope.networks) {
        const need = profile.android?.java;
        if (!need) continue;
        for (const fact of scope.facts) {
          if (fact.kind !== 'java-level' || compareVersions(fact.value, String(need.min)) >= 0) continue;
          const data = {
            network: profile.name,
            needed: String(need.min),
            language: fact.name ?? 'Java',
            value: fact.value,
            why: need.why,
          };
          yield { ...fromFact(fact), network: profile.id, message: 'low', data };
        }
      }
    }
  },
});
