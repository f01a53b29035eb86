import { defineRule } from '../model.js';
import { fromValue, networkName } from '../scope.js';
import { unitsOfOtherPlatform } from '../both-platforms.js';

/** A unit ID of one platform is in the build of the other. */
export const unitIdWrongPlatform = defineRule({
  meta: {
    id: 'unit-id/wrong-platform',
    severity: 'blocker',
    ifShipped: 'The network serves no ads for it, or counts the revenue of one platform for the other.',
    mend: 'Use the unit ID that the roster has for this platform. The placebook picks it.',
    messages: {
      other:
        '{id} is the {placement} placement of {network} on {other.label}, but it is in the build for {platform.label}.',
    },
    needsTitle: true,
  },
  *run(context) {
    for (const { scope, fact, holder, how } of unitsOfOtherPlatform(context)) {
      // What one source file does to both platforms has rules of its own.
      if (how !== 'other') continue;
      const data = {
        id: fact.value,
        placement: fact.placement ?? '',
        network: networkName(context, fact.network),
        other: holder,
        platform: scope.platform,
      };
      yield { ...fromValue(fact), message: 'other', data };
    }
  },
});
