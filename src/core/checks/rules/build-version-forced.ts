import { compareVersions, floorOf } from '../../text/versions.js';
import { defineRule } from '../model.js';
import { editionScopes, fromFact } from '../scope.js';
import { wantedVersion } from '../versions.js';

/** The build takes another version of an SDK than the one that is declared. */
export const versionForced = defineRule({
  meta: {
    id: 'build/version-forced',
    severity: 'warning',
    ifShipped:
      'The version that is declared is not the one that ships, and code may call what that one lacks.',
    mend: 'Remove this line, or change the version in it together with the declared one.',
    messages: {
      forced: '{name} is held at {value} by {by}, but {asked} is declared.',
      old: '{name} is held at {value} by {by}, but the profile of {network} is for {asked} and newer.',
    },
    needsTitle: true,
  },
  *run(context) {
    for (const scope of editionScopes(context)) {
      for (const profile of scope.networks) {
        for (const fact of scope.facts) {
          if (fact.kind !== 'forced-version' || fact.network !== profile.id || !/^\d/.test(fact.value))
            continue;
          const declared = scope.facts.find(
            ({ kind, name, variants }) =>
              kind === 'dependency' &&
              name === fact.name &&
              variants.some((one) => fact.variants.includes(one)),
          );
          if (!declared) continue;
          const data = { name: fact.name ?? '', value: fact.value, by: fact.by };
          const own = floorOf(declared.value);
          const wanted = wantedVersion(profile, fact.name ?? '');
          const base = { ...fromFact(fact), variants: fact.variants };
          if (own !== undefined && !/[<>*]/.test(declared.value) && compareVersions(own, fact.value) !== 0)
            yield { ...base, message: 'forced', data: { ...data, asked: declared.value } };
          else if (wanted !== undefined && compareVersions(fact.value, wanted) < 0)
            yield { ...base, message: 'old', data: { ...data, network: profile.name, asked: wanted } };
        }
      }
    }
  },
});
