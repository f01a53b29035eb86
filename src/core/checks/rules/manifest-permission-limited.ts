import { defineRule } from '../model.js';
import { editionScopes, fromFact } from '../scope.js';

/** A permission that a network needs is requested only on older systems. */
export const permissionLimited = defineRule({
  meta: {
    id: 'manifest/permission-limited',
    severity: 'warning',
    ifShipped: 'On newer systems the SDK lacks the permission, and requests fail or find fewer ads.',
    mend: 'Remove android:maxSdkVersion from this permission.',
    messages: {
      limited: '{network} needs {permission}, but it is declared only up to API level {max}: {why}',
    },
    needsTitle: true,
  },
  *run(context) {
    for (const scope of editionScopes(context)) {
      for (const profile of scope.networks) {
        for (const { name, why } of profile.android?.permissions ?? []) {
          for (const fact of scope.facts) {
            if (fact.kind !== 'permission' || fact.name !== name || fact.maxSdk === undefined) continue;
            const data = { network: profile.name, permission: name, max: fact.maxSdk, why };
            yield { ...fromFact(fact), network: profile.id, message: 'limited', data };
          }
        }
      }
    }
  },
});
