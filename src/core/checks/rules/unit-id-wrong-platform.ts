import { defineRule } from '../model.js';
import { fromFact, networkName } from '../scope.js';
import { misplacedUnits } from '../both-platforms.js';

/** A unit ID of one platform stands in the build of the other. */
export const unitIdWrongPlatform = defineRule({
  meta: {
    id: 'unit-id/wrong-platform',
    severity: 'blocker',
    ifShipped: 'The network serves nothing for it, or counts one platform’s revenue as the other’s.',
    mend: 'Use the unit ID that the roster has for this platform; the placebook picks it.',
    messages: {
      other:
        '{id} is the {placement} placement of {network} on {other}, and stands in the build for {platform}.',
    },
    needsTitle: true,
  },
  *run(context) {
    for (const { scope, fact, holder, how } of misplacedUnits(context)) {
      // What one source file does to both platforms has rules of its own.
      if (how !== 'other') continue;
      const data = {
        id: fact.value,
        placement: fact.placement ?? '',
        network: networkName(context, fact.network),
        other: holder,
        platform: scope.platform,
      };
      yield { ...fromFact(fact), message: 'other', data };
    }
  },
});
