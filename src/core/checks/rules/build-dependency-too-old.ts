import { defineRule } from '../model.js';
import { compareVersions, floorOf, shortenedTo } from '../../text/versions.js';
import { wantedVersion } from '../versions.js';
import { editionScopes, fromFact } from '../scope.js';

/** An SDK is older than the version that its profile describes. */
export const dependencyTooOld = defineRule({
  meta: {
    id: 'build/dependency-too-old',
    severity: 'warning',
    ifShipped: 'It may lack calls and keys of the newer version, and bugs that were fixed come back.',
    mend: 'Raise the version in the file named here.',
    messages: {
      old: '{name} is at {value}, but the profile of {network} is for {wanted} and newer.',
    },
    needsTitle: true,
  },
  *run(context) {
    for (const scope of editionScopes(context)) {
      for (const profile of scope.networks) {
        for (const fact of scope.facts) {
          if (fact.kind !== 'dependency' || fact.network !== profile.id) continue;
          const wanted = wantedVersion(profile, fact.name ?? '');
          const value = floorOf(fact.value);
          // `>= 6` and the like say what is allowed, not what is taken: the lock does.
          if (wanted === undefined || value === undefined || /[<>]/.test(fact.value.replace('~>', '')))
            continue;
          if (compareVersions(value, shortenedTo(wanted, value)) >= 0) continue;
          const data = { name: fact.name ?? '', value: fact.value, network: profile.name, wanted };
          yield { ...fromFact(fact), message: 'old', data };
        }
      }
    }
  },
});
