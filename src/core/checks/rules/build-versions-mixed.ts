import { isWhereBuildLooks } from '../../facts/effective.js';
import { groupBy } from '../../text/group-by.js';
import { compareVersions } from '../../text/versions.js';
import { defineRule } from '../model.js';
import { editionScopes, fromFact } from '../scope.js';
import { sharedVersions } from '../versions.js';

/** Two artifacts of one SDK that are published together are declared at different versions. */
export const versionsMixed = defineRule({
  meta: {
    id: 'build/versions-mixed',
    severity: 'warning',
    ifShipped: 'One artifact calls what the other lacks, and the app stops where it does.',
    mend: 'Give both the same version, best through one name in the build.',
    messages: {
      mixed: '{name} is at {value}, but {other}, which is published together with it, is at {newer}.',
    },
    needsTitle: true,
  },
  *run(context) {
    for (const scope of editionScopes(context)) {
      for (const profile of scope.networks) {
        for (const names of sharedVersions(profile, scope.platform)) {
          const declared = scope.facts.filter(
            (fact) =>
              fact.kind === 'dependency' &&
              isWhereBuildLooks(fact) &&
              names.has(fact.name ?? '') &&
              /^\d/.test(fact.value),
          );
          for (const [variant, facts] of groupBy(
            declared.flatMap((fact) => fact.variants.map((name) => ({ fact, name }))),
            ({ name }) => name,
          )) {
            const [newest, ...older] = facts
              .map(({ fact }) => fact)
              .sort((a, b) => compareVersions(b.value, a.value));
            for (const fact of older) {
              if (!newest || compareVersions(fact.value, newest.value) === 0) continue;
              const data = {
                name: fact.name ?? '',
                value: fact.value,
                other: newest.name ?? '',
                newer: newest.value,
              };
              yield { ...fromFact(fact), variants: [variant], message: 'mixed', data };
            }
          }
        }
      }
    }
  },
});
