import { defineRule } from '../model.js';
import { editionScopes, fromFact, networkName, platformName } from '../scope.js';

/** A choice by platform has no value for a platform that the title is built for, and none for all others. */
export const caseMissing = defineRule({
  meta: {
    id: 'platform/case-missing',
    severity: 'blocker',
    ifShipped: 'On that platform the SDK is asked with no ID at all: no ad, and with some SDKs no app.',
    mend: 'Give the platform its own ID here, or name the placement through the placebook, which knows both.',
    messages: {
      open: 'On {platform} this comes to nothing: it has IDs of {network} for {cases} only.',
    },
    needsTitle: true,
  },
  *run(context) {
    for (const scope of editionScopes(context)) {
      for (const fact of scope.facts) {
        if (fact.kind !== 'left-open' || !scope.networks.some(({ id }) => id === fact.network)) continue;
        const data = {
          platform: platformName(scope.platform),
          network: networkName(context, fact.network),
          cases: fact.value,
        };
        yield { ...fromFact(fact), message: 'open', data };
      }
    }
  },
});
