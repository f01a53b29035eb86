import { defineRule } from '../model.js';
import { platforms } from '../../network/model.js';
import { editionScopes, fromFact, networkName } from '../scope.js';

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
    for (const scope of editionScopes(context)) {
      for (const fact of scope.facts) {
        if (fact.kind !== 'unit-id' || !fact.placement || !fact.network) continue;
        const units = scope.title.placements[fact.placement]?.units[fact.network] ?? {};
        const holds = platforms.filter((platform) =>
          Object.values(units[platform] ?? {}).includes(fact.value),
        );
        const [other] = holds;
        if (other === undefined || holds.includes(scope.platform)) continue;
        const data = {
          id: fact.value,
          placement: fact.placement,
          network: networkName(context, fact.network),
          other,
          platform: scope.platform,
        };
        yield { ...fromFact(fact), message: 'other', data };
      }
    }
  },
});
