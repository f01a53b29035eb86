import { defineRule } from '../model.js';
import { editionScopes, fromFact, networkName } from '../scope.js';
import { platformLabels } from '../../words/platform-labels.js';

/** A choice by platform has no value for a platform that the title is built for, and none for all others. */
export const caseMissing = defineRule({
  meta: {
    id: 'platform/case-missing',
    severity: 'blocker',
    ifShipped: 'On that platform the SDK gets no ID: there are no ads, and some SDKs stop the app.',
    mend: 'Add the ID of the platform here, or name the placement through the placebook, which knows both.',
    messages: {
      open: 'On {platform} this has no value: it has IDs of {network} only for {cases.label}.',
    },
    needsTitle: true,
  },
  *run(context) {
    for (const scope of editionScopes(context)) {
      for (const fact of scope.facts) {
        if (fact.kind !== 'left-open' || !scope.networks.some(({ id }) => id === fact.network)) continue;
        const data = {
          platform: platformLabels[scope.platform],
          network: networkName(context, fact.network),
          cases: fact.value,
        };
        yield { ...fromFact(fact), message: 'open', data };
      }
    }
  },
});
