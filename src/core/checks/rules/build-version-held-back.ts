import { defineRule } from '../model.js';
import { isOlder, wantedVersion } from '../versions.js';
import { editionScopes, fromFact } from '../scope.js';

/** The lock holds an SDK at a version that is older than what is declared. */
export const versionHeldBack = defineRule({
  meta: {
    id: 'build/version-held-back',
    severity: 'warning',
    ifShipped: 'The build uses the old version, whatever the Podfile or the package reference says.',
    mend: 'Update this dependency, and commit the new lock file.',
    messages: {
      held: '{name} is locked at {value}, but {asked} is required.',
    },
    needsTitle: true,
  },
  *run(context) {
    for (const scope of editionScopes(context)) {
      for (const profile of scope.networks) {
        for (const fact of scope.facts) {
          if (fact.kind !== 'resolved-version' || fact.network !== profile.id || fact.value === '') continue;
          const own = scope.facts.find(
            ({ kind, name }) => kind === 'dependency' && name === fact.name,
          )?.value;
          const asked = [own, wantedVersion(profile, fact.name ?? '')].find(
            (version) => version !== undefined && isOlder(fact.value, version),
          );
          if (asked === undefined || !/^\d/.test(fact.value)) continue;
          yield {
            ...fromFact(fact),
            message: 'held',
            data: { name: fact.name ?? '', value: fact.value, asked },
          };
        }
      }
    }
  },
});
