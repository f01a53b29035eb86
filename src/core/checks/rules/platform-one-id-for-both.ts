import { defineRule } from '../model.js';
import { fromFact, networkName } from '../scope.js';
import { unitsOfOtherPlatform } from '../both-platforms.js';

/** Shared code names the unit ID of one platform for both. */
export const oneIdForBoth = defineRule({
  meta: {
    id: 'platform/one-id-for-both',
    severity: 'blocker',
    ifShipped:
      'On one of the two platforms the placement stays empty, or its revenue is counted for the other.',
    mend: 'Name the placement through the placebook, which picks the ID of the platform being compiled.',
    messages: {
      both: '{id} is the {placement} placement of {network} on {holder.label}, but this code also uses it on {platform.label}.',
    },
    needsTitle: true,
  },
  *run(context) {
    for (const { scope, fact, holder, how } of unitsOfOtherPlatform(context)) {
      if (how !== 'one for both') continue;
      const data = {
        id: fact.value,
        placement: fact.placement ?? '',
        network: networkName(context, fact.network),
        holder,
        platform: scope.platform,
      };
      yield { ...fromFact(fact), message: 'both', data };
    }
  },
});
